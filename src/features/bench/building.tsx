import { Button } from 'antd';
import { takeOfSpots, type Foreseen } from '@/core/bench/foreseen';
import type { Sheet } from '@/core/sheet/schema';
import type { BroughtTake } from './bench-actions';
import { StepList } from './step-list';
import { useSteps } from './use-steps';
import styles from './bench.module.css';

/** How the board is built and tried, and how far that is. */
export function Building({
  sheet,
  own,
  board,
  foreseen,
  unforeseen,
  onTake,
}: {
  sheet: Sheet;
  /** What stands before the names of this path’s steps. */
  own: string;
  board: Sheet['boards'][number] | undefined;
  foreseen: Foreseen | null;
  unforeseen: string | null;
  onTake: (name: string, take: BroughtTake) => void;
}) {
  const { result: steps, problem: unwritten } = useSteps(sheet, own, board, foreseen);
  const problem = unforeseen ?? unwritten;
  const done = (steps ?? []).filter((s) => board?.done?.includes(s.id)).length;
  const spots = foreseen && takeOfSpots(foreseen.spots, board?.reads ?? {}, own);
  return (
    <>
      <h2 className={styles.counted}>
        Build and check
        {steps && board && (
          <span className={styles.small}>
            {done} of {steps.length}
          </span>
        )}
      </h2>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
      {!board && (
        <p className={styles.soft}>
          Add a board: the steps of building it, with what should be read at each, are remembered
          for every board.
        </p>
      )}
      {board && steps && <StepList steps={steps} board={board} />}
      {board && steps && spots && (
        <Button size="small" onClick={() => onTake('spots', spots)}>
          Take the {spots.frequenciesHz.length} levels that were read
        </Button>
      )}
      {board && !steps && problem === null && <p className={styles.soft}>Writing the steps …</p>}
    </>
  );
}
