import { Button, Checkbox } from 'antd';
import { Download, X } from 'lucide-react';
import type { SheetBoard } from '@/core/bench/board-circuit';
import { isSamePoint } from '@/core/bench/points';
import type { Take } from '@/core/library/take';
import { takeTable } from '@/core/library/take-table';
import type { Sheet } from '@/core/sheet/schema';
import { dateWords } from '@/ui/controls/date-words';
import { download, fileName } from '@/ui/download';
import { attempt } from '../shell/tell';
import { removeTake, weighTogether } from './bench-actions';
import { usePointWords } from './point-choice';
import styles from './bench.module.css';

interface TakeListProps {
  sheet: Sheet;
  board: SheetBoard | undefined;
  /** Of the board, the oldest first. */
  takes: readonly Take[];
  chosen: string | undefined;
  onChoose: (id: string) => void;
}

/** What was measured of a board, the latest first. */
export function TakeList({ sheet, board, takes, chosen, onChoose }: TakeListProps) {
  const looked = takes.find((t) => t.id === chosen);
  const wordsOf = usePointWords(sheet);
  return (
    <>
      <h2>Takes{board ? ` of ${board.name}` : ''}</h2>
      {takes.length === 0 && (
        <p className={styles.soft}>
          None yet. Bring in what you measured, or try the bench with a simulated board.
        </p>
      )}
      <ul className={styles.takes}>
        {[...takes].reverse().map((t) => (
          <li key={t.id}>
            <button
              type="button"
              aria-pressed={t.id === chosen}
              className={t.id === chosen ? `${styles.take} ${styles.current}` : styles.take}
              onClick={() => onChoose(t.id)}
            >
              {t.name}
              <span className={styles.small}>
                {dateWords(t.at, 'short')}, {t.frequenciesHz.length} points
                {t.phaseDegrees ? ' with phase' : ''}
                {t.of && `; ${wordsOf(t.of)}`}
                {t.note && `. ${t.note}`}
              </span>
            </button>
            {looked && !isSamePoint(t.of, looked.of) && (
              <Checkbox
                aria-label={`Weigh ${t.name} with ${looked.name}`}
                title={`Weigh it with ${looked.name}`}
                checked={board?.together?.includes(t.id) ?? false}
                onChange={(e) => attempt(() => weighTogether(board!.id, t.id, e.target.checked))}
              >
                with it
              </Checkbox>
            )}
            <Button
              size="small"
              type="text"
              aria-label={`Save ${t.name} as a table`}
              icon={<Download size={14} />}
              onClick={() => download(fileName(t.name, 'csv'), takeTable(t, t.of?.is), 'text/csv')}
            />
            <Button
              size="small"
              type="text"
              aria-label={`Remove ${t.name}`}
              icon={<X size={14} />}
              onClick={() => attempt(() => removeTake(board!.id, t.id))}
            />
          </li>
        ))}
      </ul>
    </>
  );
}
