import { Button, Progress } from 'antd';
import { Archive } from 'lucide-react';
import { useState } from 'react';
import { now } from '@/store/ids';
import { useBackup } from '@/store/backup';
import { writeArchive } from '@/store/archive-out';
import { flush } from '@/store/session-storage';
import { dateWords } from '@/ui/controls/date-words';
import { download } from '@/ui/download';
import { attemptStored, tell } from '../shell/tell';
import styles from './archive.module.css';

/** Everything in one file, and when that was last done. */
export function MakeArchive() {
  const { lastAt } = useBackup();
  const [done, setDone] = useState<number | null>(null);
  const make = async () => {
    setDone(0);
    await attemptStored('No archive was made', async () => {
      await flush();
      const chunks: Uint8Array<ArrayBuffer>[] = [];
      const index = await writeArchive((chunk) => chunks.push(chunk), setDone);
      const day = now().slice(0, 10);
      const type = 'application/zip';
      download(`jaunty-reed-${day}.zip`, new Blob(chunks, { type }), type);
      useBackup.setState({ lastAt: index.madeAt, putOffUntil: null });
      tell('Everything is in one archive: put it where it is safe.');
    });
    setDone(null);
  };
  return (
    <section className={styles.section} aria-labelledby="make-archive">
      <h2 id="make-archive">Everything in one file</h2>
      <p>
        Sheets, keeps, drawer, drivers, takes, the book with its pictures, and preferences: a zip of
        plain files that opens anywhere, and comes back in here.
      </p>
      <div className={styles.row}>
        <Button
          type="primary"
          icon={<Archive size={15} />}
          disabled={done !== null}
          onClick={() => void make()}
        >
          Make an archive
        </Button>
        {done !== null ? (
          <Progress
            className={styles.progress}
            percent={Math.round(100 * done)}
            size="small"
            aria-label="How much is in the archive"
          />
        ) : (
          <span className={styles.soft}>
            {lastAt === null
              ? 'None was made from this browser yet.'
              : `The last one was made ${dateWords(lastAt, 'medium')}.`}
          </span>
        )}
      </div>
    </section>
  );
}
