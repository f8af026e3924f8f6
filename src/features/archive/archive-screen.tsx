'use client';

import Link from 'next/link';
import { useEffect } from 'react';
import { KeptFolder } from './kept-folder';
import { MakeArchive } from './make-archive';
import { StorageFacts } from './storage-facts';
import { TakeArchive } from './take-archive';
import styles from './archive.module.css';

/** Everything that is kept here, out to a file and back. */
export function ArchiveScreen() {
  useEffect(() => {
    document.title = 'Archive · Jaunty Reed';
  }, []);
  return (
    <div className={styles.screen}>
      <header className={styles.header}>
        <h1>Archive</h1>
        <p className={styles.soft}>
          All of it lives in this browser and nowhere else. <Link href="/">Back to the shelf</Link>
        </p>
      </header>
      <div className={styles.sections}>
        <div className={styles.column}>
          <MakeArchive />
          <KeptFolder />
          <StorageFacts />
        </div>
        <TakeArchive />
      </div>
    </div>
  );
}
