import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { refuse, tell } from '../shell/tell';
import styles from './archive.module.css';

interface Facts {
  usage: number;
  quota: number;
  persisted: boolean;
}

const megabytes = (bytes: number): string =>
  bytes < 1e6
    ? 'Less than 1 MB'
    : bytes < 1e9
      ? `${Math.round(bytes / 1e6)} MB`
      : `${(bytes / 1e9).toFixed(1)} GB`;

async function factsOf(): Promise<Facts | null> {
  // Pages over plain http, and some browsers, are not told.
  const storage = navigator.storage as StorageManager | undefined;
  if (!storage?.estimate) return null;
  const [{ usage = 0, quota = 0 }, persisted] = await Promise.all([
    storage.estimate(),
    storage.persisted?.() ?? false,
  ]);
  return { usage, quota, persisted };
}

/** How much of this browser’s storage is taken, and whether it may be cleared away. */
export function StorageFacts() {
  const [facts, setFacts] = useState<Facts | null | undefined>(undefined);
  useEffect(() => {
    let here = true;
    factsOf()
      .catch(() => null)
      .then((found) => here && setFacts(found))
      .catch(() => undefined);
    return () => {
      here = false;
    };
  }, []);
  const ask = async () => {
    const granted = await navigator.storage.persist().catch(() => false);
    if (granted) tell('The browser keeps it, also when the disk runs full.');
    else
      refuse(
        'The browser did not agree: it may clear pages away when the disk runs full. An archive now and then makes up for it.',
      );
    setFacts(await factsOf().catch(() => null));
  };
  return (
    <section className={styles.section} aria-labelledby="storage">
      <h2 id="storage">In this browser</h2>
      {facts === null && <p>This browser does not say how much it stores.</p>}
      {facts && (
        <>
          <p>
            {megabytes(facts.usage)} of {megabytes(facts.quota)} are taken.{' '}
            {facts.persisted
              ? 'The browser keeps them, also when the disk runs full.'
              : 'The browser may clear them away when the disk runs full.'}
          </p>
          {!facts.persisted && (
            <div className={styles.row}>
              <Button onClick={() => void ask()}>Ask the browser to keep them</Button>
            </div>
          )}
        </>
      )}
    </section>
  );
}
