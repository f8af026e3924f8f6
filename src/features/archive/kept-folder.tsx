import { Button } from 'antd';
import { FolderSync } from 'lucide-react';
import { useEffect } from 'react';
import {
  allowFolder,
  chooseFolder,
  findFolder,
  FOLDER_FILE,
  forgetFolder,
  useFolder,
} from '@/store/folder';
import { dateWords } from '@/ui/controls/date-words';
import { attemptStored } from '../shell/tell';
import styles from './archive.module.css';

/** A folder on disk in which an archive is kept up to date. */
export function KeptFolder() {
  const { folder } = useFolder();
  useEffect(() => {
    void findFolder().catch(() => undefined);
  }, []);
  if (folder.is === 'unknown') return null;
  const choose = () => attemptStored('No folder was taken', chooseFolder);
  return (
    <section className={styles.section} aria-labelledby="folder">
      <h2 id="folder">A folder kept up to date</h2>
      {folder.is === 'impossible' && (
        <p>This browser lets no page write into a folder: make an archive now and then.</p>
      )}
      {folder.is === 'none' && (
        <>
          <p>
            An archive of everything, written anew into a folder of this computer whenever something
            has changed.
          </p>
          <Button icon={<FolderSync size={15} />} onClick={() => void choose()}>
            Choose a folder
          </Button>
        </>
      )}
      {folder.is === 'asking' && (
        <>
          <p>The browser wants you to allow again that “{folder.name}” is written.</p>
          <div className={styles.row}>
            <Button
              type="primary"
              onClick={() => void attemptStored('It was not allowed', allowFolder)}
            >
              Allow it
            </Button>
            <Button
              type="text"
              onClick={() => void attemptStored('It is still kept', forgetFolder)}
            >
              Keep it no longer
            </Button>
          </div>
        </>
      )}
      {folder.is === 'kept' && (
        <>
          <p role="status">
            {FOLDER_FILE} in “{folder.name}”{' '}
            {folder.writing
              ? 'is being written.'
              : folder.writtenAt === null
                ? 'is written in a moment.'
                : `was written ${dateWords(folder.writtenAt, 'medium')}.`}
          </p>
          {folder.problem !== null && (
            <p role="alert" className={styles.problem}>
              {folder.problem}
            </p>
          )}
          <div className={styles.row}>
            <Button onClick={() => void choose()}>Choose another</Button>
            <Button
              type="text"
              onClick={() => void attemptStored('It is still kept', forgetFolder)}
            >
              Keep it no longer
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
