import { Button, Input } from 'antd';
import { nameOfValue, placeOfPart, shownName } from '@/core/bench/board-circuit';
import { formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { setValue } from '../sheet/actions/parts';
import { attempt } from '../shell/tell';
import { changeBoard } from './bench-actions';
import { quantityOfPart } from './suspect-words';
import styles from './bench.module.css';

/** What is known of a board: values that were measured on it, and what was written down. */
export function BoardFacts({ sheet, board }: { sheet: Sheet; board: Sheet['boards'][number] }) {
  const mark = usePreferences((p) => p.mark);
  const values = Object.entries(board.values);
  const forget = (key: string) =>
    attempt(() =>
      changeBoard(board.id, ({ values: all }) => ({
        values: Object.fromEntries(Object.entries(all).filter(([k]) => k !== key)),
      })),
    );
  /** What all boards are designed with from now on; this one needs no word of its own for it then. */
  const designWith = (key: string, value: number) =>
    attempt(() => {
      const place = placeOfPart(sheet, nameOfValue(sheet, key));
      if (!place) return;
      setValue(place.stage, place.part, value);
      forget(key);
    });
  return (
    <>
      <h2>Notes on {board.name}</h2>
      <Input.TextArea
        aria-label={`Notes on ${board.name}`}
        placeholder="Notes"
        rows={3}
        maxLength={2000}
        value={board.note}
        onChange={(e) =>
          attempt(() => changeBoard(board.id, () => ({ note: e.target.value }), `note ${board.id}`))
        }
      />
      {values.length > 0 && (
        <>
          <h3>Measured or chosen for it</h3>
          <ul className={styles.takes}>
            {values.map(([key, value]) => {
              const name = nameOfValue(sheet, key);
              return (
                <li key={key}>
                  <span className={styles.figure}>
                    {shownName(sheet, name)}{' '}
                    {formatQuantity(value, quantityOfPart(name), { digits: 3, unit: true, mark })}
                  </span>
                  {/* The values of a channel are worked out around its known parts, and not set. */}
                  {!sheet.bank && (
                    <Button
                      size="small"
                      type="text"
                      aria-label={`Use ${name} in the sheet`}
                      onClick={() => designWith(key, value)}
                    >
                      Use in the sheet
                    </Button>
                  )}
                  <Button
                    size="small"
                    type="text"
                    aria-label={`Forget ${name}`}
                    onClick={() => forget(key)}
                  >
                    Forget
                  </Button>
                </li>
              );
            })}
          </ul>
        </>
      )}
    </>
  );
}
