'use client';

import '@/ui/theme/theme.css';
import styles from '@/features/shell/error-boundary.module.css';

/** What stands in the place of everything when the shell itself could not be drawn. */
export default function GlobalError({ error }: { error: Error }) {
  return (
    <html lang="en">
      <body>
        <title>Jaunty Reed could not be drawn</title>
        <main role="alert" className={styles.fault}>
          <h1>The program could not be drawn</h1>
          <p>
            That is a fault of the program. Your sheets are not touched by it: they lie in this
            browser as they were last stored, and can be exported here, all in one file.
          </p>
          <p className={styles.detail}>{error.message.slice(0, 200)}</p>
          <div className={styles.ways}>
            <a className={styles.way} href="/">
              To the shelf
            </a>
            <button type="button" className={styles.way} onClick={() => void exportAll()}>
              Export every sheet
            </button>
          </div>
        </main>
      </body>
    </html>
  );
}

// Every page carries this one along: what reads and writes sheets is fetched when it is asked for.
async function exportAll(): Promise<void> {
  const { exportShelf } = await import('@/features/shelf/export-shelf');
  await exportShelf();
}
