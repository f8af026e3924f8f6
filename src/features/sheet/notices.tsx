'use client';

import { Button } from 'antd';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { bringBack, dismissNotice, leaveDeleted } from '@/store/session-storage';
import { sheetOf, useSession } from '@/store/sheet-session';
import { sheetAddress } from '../shell/sheet-address';
import { sheetFile } from './sheet-file';
import styles from './sheet-screen.module.css';

/** What should be known of the open sheet, above everything else. */
export function Notices({ problem }: { problem: string | null }) {
  const router = useRouter();
  const status = useSession((s) => s.status);
  const notice = useSession((s) => s.notice);
  const exportIt = () => {
    const sheet = sheetOf(useSession.getState());
    if (sheet) void sheetFile(sheet);
  };
  return (
    <>
      {status.is === 'gone' && (
        <div role="alert" className={styles.notice}>
          <span>
            This sheet was deleted in another tab. What you do here is not stored until you choose.
          </span>
          <Button size="small" type="primary" onClick={() => void bringBack()}>
            Bring it back
          </Button>
          <Button size="small" onClick={() => void leaveDeleted().then(() => router.push('/'))}>
            Leave it deleted
          </Button>
        </div>
      )}
      {status.is === 'failed' && (
        <div role="alert" className={styles.notice}>
          <span>
            The last edits could not be stored: {status.problem}. It is tried again by itself.
          </span>
          <Button size="small" onClick={exportIt}>
            Export the sheet
          </Button>
        </div>
      )}
      {notice && (
        <div role="status" className={`${styles.notice} ${styles.quiet}`}>
          <span>{notice.text}</span>
          {notice.other && (
            <Link href={sheetAddress(notice.other.id)}>Open “{notice.other.title}”</Link>
          )}
          <Button size="small" onClick={dismissNotice}>
            Understood
          </Button>
        </div>
      )}
      {problem && (
        <div role="alert" className={styles.notice}>
          {problem}
        </div>
      )}
    </>
  );
}
