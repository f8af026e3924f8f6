'use client';

import Link from 'next/link';
import { Screen } from '../shell/screen';
import { KeptFolder } from './kept-folder';
import { MakeArchive } from './make-archive';
import { StorageFacts } from './storage-facts';
import { TakeArchive } from './take-archive';
import styles from './archive.module.css';

/** Everything that is kept here, out to a file and back. */
export function ArchiveScreen() {
  return (
    <Screen
      title="Archive"
      beside={
        <p>
          All of it lives in this browser and nowhere else. <Link href="/">Back to the shelf</Link>
        </p>
      }
    >
      <div className={styles.sections}>
        <div className={styles.column}>
          <MakeArchive />
          <KeptFolder />
          <StorageFacts />
        </div>
        <TakeArchive />
      </div>
    </Screen>
  );
}
