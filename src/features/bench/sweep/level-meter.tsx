import styles from './sweep.module.css';

/** Levels below this are not shown, dB under full scale. */
const LEAST_DB = -60;
/** Above this the meter warns. */
const LOUD_DB = -3;

/** What comes in, on a scale of decibels. */
export function LevelMeter({ peak }: { peak: number }) {
  const db = peak > 0 ? Math.max(LEAST_DB, 20 * Math.log10(peak)) : LEAST_DB;
  return (
    <meter
      className={styles.meter}
      aria-label="Level at the input"
      min={LEAST_DB}
      max={0}
      low={LOUD_DB}
      high={LOUD_DB}
      optimum={LEAST_DB}
      value={db}
    />
  );
}
