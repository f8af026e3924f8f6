import { useMemo } from 'react';
import { isSamePoint } from '@/core/bench/points';
import { awayBy, isOutside, oddest } from '@/core/bench/verdict';
import type { Take } from '@/core/library/take';
import { formatFixed } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { DecimalMark } from '@/core/quantity/parse';
import { quantityOfMeasure } from '@/core/response/readings';
import type { ReadingSpread } from '@/core/spread/spread';
import type { Sheet } from '@/core/sheet/schema';
import { readingName } from '@/core/sheet/words';
import { useOpenLibrary } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { meterFigure } from './meter-figure';
import { useJob } from './use-job';
import styles from './bench.module.css';

interface BoardReadingsProps {
  sheet: Sheet;
  takes: readonly Take[];
  /** By reading, what such boards come to; nothing until it is counted. */
  limits: readonly (ReadingSpread | null)[] | null;
  /** The board that is looked at. */
  current: string | undefined;
}

/** The readings of all boards side by side, against what tolerances allow: which one is odd. */
export function BoardReadings({ sheet, takes, limits, current }: BoardReadingsProps) {
  const mark = usePreferences((p) => p.mark);
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const { ways, parts, source, controls, boards } = sheet;
  // The latest of each board’s output, named by what bears on it: notes and ticks do not.
  const latest = boards.map((board) => ({
    board,
    take: board.takes
      .map((id) => takes.find((t) => t.id === id))
      .findLast((t) => t !== undefined && isSamePoint(t.of, undefined)),
  }));
  const key = latest
    .map(({ board, take }) => `${board.id} ${take?.id} ${JSON.stringify(board.values)}`)
    .join(';');
  const input = useMemo(
    () => ({
      sheet,
      drawer,
      boards: latest.flatMap(({ board, take }) => (take ? [{ board, take }] : [])),
    }),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [ways, parts, source, controls, sheet.readings, drawer, key],
  );
  const { result } = useJob('readBoards', input.boards.length > 0 ? input : null);
  if (!result || sheet.readings.length === 0) return null;
  const stages = ways[0].stages.map((s) => s.id);
  const limitsOf = (r: number): ReadingSpread | null => limits?.[r] ?? null;
  const odd = oddest(
    result.map(({ values, noise }) =>
      values.flatMap((v, r) => {
        const limits = limitsOf(r);
        return v === null || !limits ? [] : [awayBy(v, noise[r] ?? 0, limits)];
      }),
    ),
  );
  return (
    <div className={styles.readingsRoom}>
      <table className={styles.readingsTable} aria-label="Readings of all boards">
        <thead>
          <tr>
            <th scope="col">Reading</th>
            <th scope="col">expected</th>
            {result.map(({ board }, i) => (
              <th scope="col" key={board} aria-current={board === current ? 'true' : undefined}>
                {boards.find((b) => b.id === board)?.name ?? board}
                {i === odd && <b className={styles.off}> odd</b>}
              </th>
            ))}
            {result.length >= FEW && (
              <th scope="col" title="How far the boards lie apart, of how far such boards should">
                spread
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {sheet.readings.map((reading, r) => {
            const quantity = quantityOfMeasure(reading.measure);
            const limits = limitsOf(r);
            return (
              <tr key={reading.id}>
                <th scope="row">{readingName(reading, mark, stages)}</th>
                <td>{limits ? limitWords(limits, quantity, mark) : '…'}</td>
                {result.map(({ board, values, noise }) => (
                  <Cell
                    key={board}
                    value={values[r]}
                    noise={noise[r] ?? 0}
                    limits={limits}
                    quantity={quantity}
                  />
                ))}
                {result.length >= FEW && (
                  <td>
                    {spreadWords(
                      result.flatMap(({ values }) => values[r] ?? []),
                      result.map(({ noise }) => noise[r] ?? 0),
                      limits,
                      mark,
                    )}
                  </td>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function Cell({
  value,
  noise,
  limits,
  quantity,
}: {
  value: number | null;
  /** One standard deviation that is its take’s alone. */
  noise: number;
  limits: ReadingSpread | null;
  quantity: QuantityKind;
}) {
  const mark = usePreferences((p) => p.mark);
  if (value === null) return <td className={styles.soft}>–</td>;
  const isOdd = limits !== null && isOutside(value, noise, limits);
  return (
    <td className={isOdd ? styles.off : undefined}>
      {meterFigure(value, quantity, mark)}
      {isOdd && <span aria-label="outside"> ✗</span>}
    </td>
  );
}

/** From so many boards on their spread says something. */
const FEW = 3;

/** How far the boards lie apart, as a part of how far such boards and their noise should: standard deviations. */
function spreadWords(
  values: readonly number[],
  noise: readonly number[],
  limits: ReadingSpread | null,
  mark: DecimalMark,
): string {
  if (values.length < FEW || !limits || !(limits.sd > 0)) return '–';
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const squares = values.reduce((sum, v) => sum + (v - mean) ** 2, 0);
  const own = Math.sqrt(squares / (values.length - 1));
  const expected = Math.hypot(limits.sd, Math.hypot(...noise) / Math.sqrt(noise.length));
  return `${formatFixed(own / expected, 1, mark)} ×`;
}

const limitWords = ({ p1, p99 }: ReadingSpread, quantity: QuantityKind, mark: DecimalMark) =>
  `${meterFigure(p1, quantity, mark)} to ${meterFigure(p99, quantity, mark)}`;
