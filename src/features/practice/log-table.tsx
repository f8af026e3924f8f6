import type { Comparison } from '@/core/bench/compare';
import { COSTS, type Found } from '@/core/practice/measure';
import type { Asked } from '@/core/practice/record';
import { usePreferences } from '@/store/preferences';
import { askedWords, foundWords } from './practice-words';
import styles from './practice.module.css';

interface LogProps {
  asked: readonly Asked[];
  found: readonly Found[];
  meeting: Comparison['meeting'];
}

/** Everything that was measured, the latest first, beside what a sound board would have given. */
export function LogTable({ asked, found, meeting }: LogProps) {
  const mark = usePreferences((p) => p.mark);
  if (asked.length === 0) return null;
  return (
    <table className={styles.log} aria-label="What was measured">
      <thead>
        <tr>
          <th scope="col">Measured</th>
          <th scope="col">read</th>
          <th scope="col">should be</th>
          <th scope="col">cost</th>
        </tr>
      </thead>
      <tbody>
        {asked
          .map((one, turn) => ({ one, turn, words: foundWords(found[turn], one, mark) }))
          .reverse()
          .map(({ one, turn, words }) => (
            <tr key={turn}>
              <th scope="row">{askedWords(one, meeting, mark)}</th>
              <td>{words.read}</td>
              <td>{words.sound}</td>
              <td>{COSTS[one.is]}</td>
            </tr>
          ))}
      </tbody>
    </table>
  );
}
