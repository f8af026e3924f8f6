'use client';

import { Button } from 'antd';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { legibleTitle } from '@/core/sheet/salvage';
import { useSession } from '@/store/sheet-session';
import { openDamaged } from '../shelf/open-damaged';
import { sheetAddress } from '../shell/sheet-address';
import { damagedFile } from './sheet-file';
import styles from './sheet-screen.module.css';

/** What stands in the place of a sheet that is not open. */
export function Unopened({ id }: { id: string }) {
  const router = useRouter();
  const status = useSession((s) => s.status);
  if (status.is === 'missing')
    return (
      <div className={styles.unopened}>
        <h1>There is no such sheet in this browser</h1>
        <p>
          It may have been deleted, or made in another browser. Sheets move between browsers as
          files; deleted ones stay on the shelf for a week.
        </p>
        <Link href="/">To the shelf</Link>
      </div>
    );
  if (status.is === 'damaged') {
    const title = legibleTitle(status.document);
    return (
      <div className={styles.unopened} role="alert">
        <h1>{title === '' ? 'This sheet' : `“${title}”`} cannot be read</h1>
        <p>{status.problem}</p>
        <p>It is left as it is. What can be read of it opens as a sheet of its own.</p>
        <Button
          type="primary"
          onClick={() => void openDamaged(id, (copy) => router.push(sheetAddress(copy)))}
        >
          Open what can be read
        </Button>
        <Button onClick={() => damagedFile(title, id, status.document)}>
          Export what is stored
        </Button>
        <Link href="/">To the shelf</Link>
      </div>
    );
  }
  return <div className={styles.unopened} aria-busy="true" />;
}
