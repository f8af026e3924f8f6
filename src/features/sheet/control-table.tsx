import type { ControlPicture, ControlRow } from '@/core/lenses/control';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Control, Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { givenAt, movedQuantity, printGiven } from './control-words';
import styles from './real-lenses.module.css';

/** Every other place has a line. */
const EVERY = 2;

/** What a control does, place by place. */
export function ControlTable({
  sheet,
  control,
  picture,
}: {
  sheet: Sheet;
  control: Control;
  picture: ControlPicture;
}) {
  const mark = usePreferences((p) => p.mark);
  const moved = movedQuantity(sheet, control);
  const hz = (value: number | null) =>
    value === null ? 'none' : formatQuantity(value, 'hertz', { digits: 4, unit: true, mark });
  const fixed = (value: number, digits: number) => formatFixed(value, digits, mark);
  const { rows, cents, drift } = picture;
  // Of a cell in the light of a lamp what it shows, and its pair beside the corner.
  const lit = rows[0].cellOhms !== null;
  const here = Math.round(control.at * (rows.length - 1));
  const shown = rows.map((row, k) => ({ row, k })).filter(({ k }) => k % EVERY === 0);
  return (
    <div className={styles.side} data-picture>
      <table className={styles.table} aria-label="What the control does">
        <thead>
          <tr>
            <th scope="col">{control.name}</th>
            <th scope="col">{moved.name}</th>
            {lit && <th scope="col">cell</th>}
            <th scope="col">cut-off</th>
            {lit && <th scope="col">f₀</th>}
            <th scope="col">Q</th>
            <th scope="col">passes</th>
            <th scope="col">peak</th>
            {cents && <th scope="col">cents off</th>}
            {drift.map((d) => (
              <th scope="col" key={d.kelvin}>
                at {fixed(d.kelvin - 273.15, 0)} °C
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map(({ row, k }) => (
            <tr key={row.at} aria-current={Math.abs(k - here) < EVERY / 2 || undefined}>
              <th scope="row">{printGiven(control, givenAt(control, row.at), mark)}</th>
              <td>{formatQuantity(row.moved, moved.kind, { digits: 3, unit: true, mark })}</td>
              {lit && (
                <td>
                  {formatQuantity(row.cellOhms ?? NaN, 'ohms', { digits: 3, unit: true, mark })}
                </td>
              )}
              <td>{hz(row.hz)}</td>
              {lit && <td>{hz(row.figures.pairHz)}</td>}
              <td>{qWords(row, fixed)}</td>
              <td>{fixed(row.figures.plateauDb, 1)} dB</td>
              <td>
                {row.figures.peakHz === null
                  ? 'none'
                  : `${fixed(row.figures.peakDb, 1)} dB at ${hz(row.figures.peakHz)}`}
              </td>
              {cents && <td>{centWords(cents[k], fixed)}</td>}
              {drift.map((d) => (
                <td key={d.kelvin}>{centWords(d.cents[k], fixed)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

type Fixed = (value: number, digits: number) => string;

const centWords = (cents: number, fixed: Fixed): string =>
  Number.isNaN(cents) ? 'none' : fixed(cents, 1);

function qWords({ figures: { q, stable } }: ControlRow, fixed: Fixed): string {
  if (!stable) return 'sings';
  return q === null ? 'no pair' : fixed(q, 2);
}
