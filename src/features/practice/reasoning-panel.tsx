import { useMemo, useState } from 'react';
import { type Place, type PracticeBoard } from '@/core/practice/deal';
import { costOf } from '@/core/practice/reasoning';
import type { PracticeRecord } from '@/core/practice/record';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { ComparePicture } from '../bench/compare-picture';
import { SuspectList } from '../bench/suspect-list';
import { useJob } from '../bench/use-job';
import { faultWords } from './practice-words';
import styles from './practice.module.css';

interface ReasoningProps {
  place: Place;
  sheets: readonly Sheet[];
  board: PracticeBoard;
  record: PracticeRecord;
}

/** What was wrong, what it cost to find, and how one sweep of the output tells it. */
export function useReasoning({ place, sheets, board, record }: ReasoningProps) {
  const mark = usePreferences((p) => p.mark);
  const [chosen, setChosen] = useState(0);
  const isOver = record.state !== 'open';
  const input = useMemo(() => (isOver ? { place, sheets } : null), [isOver, place, sheets]);
  const { result, problem } = useJob('practiceReasoning', input);
  const { view } = board.sheet;
  const verdict = (
    <p className={styles.verdict} role="status">
      {faultWords(board.fault, mark)}.{' '}
      {record.state === 'solved' ? `It cost you ${costOf(record)}` : 'You were shown'}
      {result ? `; the way below costs ${result.par}.` : '.'}
    </p>
  );
  return {
    words: (
      <>
        {verdict}
        {problem !== null && <p role="alert">{problem}</p>}
        {result && (
          <>
            <h3>What one sweep of the output says</h3>
            <SuspectList comparison={result.comparison} chosen={chosen} onChoose={setChosen} />
          </>
        )}
      </>
    ),
    picture: result && (
      <ComparePicture
        fromHz={view.fromHz}
        toHz={view.toHz}
        take={{ name: 'a sweep of the output', levelDb: result.take.levelDb }}
        comparison={result.comparison}
        spread={null}
        chosen={chosen}
      />
    ),
  };
}
