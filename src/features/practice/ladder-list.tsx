import { BOARDS, keyOf, type Place } from '@/core/practice/deal';
import { LADDER } from '@/core/practice/ladder';
import { costOf } from '@/core/practice/reasoning';
import { recordOf, usePractice } from '@/store/practice';
import styles from './practice.module.css';

interface LadderProps {
  place: Place;
  onPlace: (place: Place) => void;
}

/** Rungs from what anyone sees to what only a careful eye does, and how each board of them went. */
export function LadderList({ place, onPlace }: LadderProps) {
  const practice = usePractice();
  return (
    <ol className={styles.ladder} aria-label="The ladder">
      {LADDER.map(({ name }, rung) => (
        <li key={name}>
          <span className={styles.rung}>{name}</span>
          <span className={styles.boards}>
            {Array.from({ length: BOARDS }, (_, board) => {
              const own = { deal: practice.deal, rung, board };
              const record = recordOf(practice, keyOf(own));
              const isHere = rung === place.rung && board === place.board;
              const state =
                record.state === 'solved'
                  ? `found out at ${costOf(record)}`
                  : record.state === 'shown'
                    ? 'shown'
                    : record.asked.length > 0
                      ? 'begun'
                      : 'untouched';
              return (
                <button
                  key={board}
                  type="button"
                  className={`${styles.place} ${styles[record.state]} ${isHere ? styles.here : ''}`}
                  aria-pressed={isHere}
                  aria-label={`${name}, board ${board + 1}: ${state}`}
                  onClick={() => onPlace(own)}
                >
                  {record.state === 'solved' ? '✓' : board + 1}
                </button>
              );
            })}
          </span>
        </li>
      ))}
    </ol>
  );
}
