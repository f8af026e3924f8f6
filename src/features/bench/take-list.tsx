import { Button } from 'antd';
import { Download, X } from 'lucide-react';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { Take } from '@/core/library/take';
import { takeTable } from '@/core/library/take-table';
import { dateWords } from '@/ui/controls/date-words';
import { download, fileName } from '@/ui/download';
import { attempt } from '../shell/tell';
import { removeTake } from './bench-actions';
import styles from './bench.module.css';

interface TakeListProps {
  board: SheetBoard | undefined;
  /** Of the board, the oldest first. */
  takes: readonly Take[];
  chosen: string | undefined;
  onChoose: (id: string) => void;
}

/** What was measured of a board, the latest first. */
export function TakeList({ board, takes, chosen, onChoose }: TakeListProps) {
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
                {t.note && `. ${t.note}`}
              </span>
            </button>
            <Button
              size="small"
              type="text"
              aria-label={`Save ${t.name} as a table`}
              icon={<Download size={14} />}
              onClick={() => download(fileName(t.name, 'csv'), takeTable(t), 'text/csv')}
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
