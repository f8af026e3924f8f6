import styles from './sweep.module.css';

/** Why nothing came of it. */
export const NotTaken = ({ problem }: { problem: string | null }) =>
  problem === null ? null : (
    <p role="alert" className={styles.bad}>
      {problem} Nothing was taken.
    </p>
  );
