import type { DecimalMark } from '@/core/quantity/parse';
import { formatQuantity } from '@/core/quantity/format';
import type { Reading } from '@/core/sheet/schema';
import { printMeasured } from '@/core/sheet/words';
import { useSheet } from '@/store/sheet-session';
import { SpreadAdvice } from './spread-advice';
import { useReadingSpread } from './spreads';
import { percent, printSpan } from './spread-words';
import styles from './spread.module.css';

/** Parts that have less to do with a reading than this are not named. */
const LEAST_SHARE = 0.02;
const MOST_NAMED = 5;
/** A part bought so much closer, for saying what that would do. */
const CLOSER = 5;

/** Everything that many boards say of one reading, and which parts are to blame. */
export function SpreadDetails({
  reading,
  name,
  mark,
}: {
  reading: Reading;
  name: string;
  mark: DecimalMark;
}) {
  const { id, measure } = reading;
  const sheet = useSheet();
  const { of, boards } = useReadingSpread(id);
  if (!of) return <p className={styles.quiet}>It is being counted again.</p>;
  const value = (x: number) => printMeasured(measure, x, mark);
  const parts = Object.entries(of.shares)
    .filter(([, share]) => share >= LEAST_SHARE)
    .slice(0, MOST_NAMED);
  const [heaviest] = parts;
  return (
    <div className={styles.details}>
      <h4>{name}</h4>
      <dl>
        <dt>Middle</dt>
        <dd>{value(of.p50)}</dd>
        <dt>Nine in ten</dt>
        <dd>{printSpan(measure, of.p5, of.p95, mark)}</dd>
        <dt>All but two in a hundred</dt>
        <dd>{printSpan(measure, of.p1, of.p99, mark)}</dd>
        {of.corners && (
          <>
            <dt>Every part at its worst</dt>
            <dd>{printSpan(measure, of.corners.least, of.corners.most, mark)}</dd>
          </>
        )}
        {of.met !== null && (
          <>
            <dt>As wanted</dt>
            <dd>{percent(of.met, mark)} of the boards</dd>
          </>
        )}
        {of.without > 0 && (
          <>
            <dt>Without it</dt>
            <dd>{of.without} boards have no such reading</dd>
          </>
        )}
      </dl>
      {parts.length > 0 && (
        <>
          <h5>What it comes from</h5>
          <ul className={styles.shares} aria-label="Shares of the variance">
            {parts.map(([part, share]) => (
              <li key={part}>
                <span>{part}</span>
                <span className={styles.bar} aria-hidden>
                  <i style={{ width: `${Math.round(share * 100)}%` }} />
                </span>
                <span className={styles.figure}>{percent(share, mark)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {heaviest && (
        <p className={styles.quiet}>
          {heaviest[0]} bought {CLOSER} times as close would leave{' '}
          {formatQuantity(100 * Math.sqrt(1 - heaviest[1] * (1 - 1 / CLOSER ** 2)), 'ratio', {
            digits: 2,
            mark,
          })}
          &nbsp;% of the width.
        </p>
      )}
      {heaviest && sheet && (
        <SpreadAdvice sheet={sheet} reading={reading} heaviest={heaviest[0]} mark={mark} />
      )}
      <p className={styles.quiet}>
        {boards.toLocaleString('en')} boards, each part drawn for itself.
      </p>
    </div>
  );
}
