import type { ReactNode } from 'react';
import styles from './lens-panel.module.css';

/** A lens's picture with what is to be said of it: that it is late, or what could not be worked out. */
export function LensState({
  problem,
  stale,
  children,
}: {
  problem: string | null;
  stale: boolean;
  children: ReactNode;
}) {
  return (
    <div className={styles.lens} aria-busy={stale} data-late={stale || undefined}>
      {children}
      {problem && (
        <p role="alert" className={styles.problem}>
          {problem}
        </p>
      )}
    </div>
  );
}
