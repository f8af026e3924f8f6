import { Button } from 'antd';
import Link from 'next/link';
import { useCallback } from 'react';
import { isBackupDue, PUT_OFF_DAYS, putBackupOff, useBackup } from '@/store/backup';
import { useLiveQuery } from '@/store/live';
import { dateWords } from '@/ui/controls/date-words';
import styles from './archive.module.css';

/** A quiet line when much was done since everything was last saved elsewhere. */
export function BackupReminder() {
  const backup = useBackup();
  const due = useLiveQuery(useCallback(() => isBackupDue(backup), [backup]));
  if (!due) return null;
  return (
    <p className={styles.reminder} role="note">
      <span>
        {backup.lastAt === null
          ? 'None of this was ever saved outside this browser.'
          : `Saved outside this browser last ${dateWords(backup.lastAt, 'short')}.`}{' '}
        <Link href="/archive">Make an archive</Link>
      </span>
      <Button size="small" type="text" onClick={() => putBackupOff()}>
        In {PUT_OFF_DAYS} days
      </Button>
    </p>
  );
}
