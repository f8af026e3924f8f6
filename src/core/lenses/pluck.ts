import { operatingPoint } from '@/core/analysis/dc/operating-point';
import { ohmsOver, settledOhms } from '@/core/circuit/devices/photocell';
import type { Circuit } from '@/core/circuit/schema';
import { along } from '@/core/numeric/along';
import type { Control } from '@/core/sheet/schema';

/** A place of a travel: what the cell shows there, and where the filter cuts off. */
interface Lit {
  cellOhms: number | null;
  hz: number | null;
}

/** A cell’s answer to a pluck of its lamp, and where the filter cuts off meanwhile. */
export interface Pluck {
  seconds: Float64Array;
  ohms: Float64Array;
  hz: Float64Array;
  /** From the pluck to half way up in octaves, and from letting go to half way down. */
  upSeconds: number | null;
  downSeconds: number | null;
}

/** A pluck: so long at the top of the control, and so long looked at. */
const PLUCKED = 0.05;
const PLUCK_LASTS = 0.8;
const PLUCK_POINTS = 401;

const cellIn = ({ parts }: Circuit) => parts.find((p) => p.kind === 'photocell');

/** Whether a lamp lights a cell in a circuit. */
export const hasCell = (circuit: Circuit): boolean => cellIn(circuit) !== undefined;

/** What the first lit cell of a circuit shows at rest. */
export function cellOhmsIn(circuit: Circuit): number | null {
  const cell = cellIn(circuit);
  if (!cell) return null;
  const { nodes } = operatingPoint(circuit);
  const volts = (net: string) => nodes[net] ?? 0;
  return settledOhms(cell, (volts(cell.lampPlus) - volts(cell.lampMinus)) / cell.lampOhms);
}

/** What a pluck does along a travel that was solved; nothing where no lamp’s cell is in the circuit. */
export function pluckOf(
  circuit: Circuit,
  { from, to }: Pick<Control['moves'][number], 'from' | 'to'>,
  rows: readonly Lit[],
): Pluck | null {
  const cell = cellIn(circuit);
  if (!cell || rows.some((r) => r.cellOhms === null)) return null;
  const seconds = Float64Array.from(
    { length: PLUCK_POINTS },
    (_, k) => (k * PLUCK_LASTS) / (PLUCK_POINTS - 1),
  );
  const ohms = ohmsOver(cell, (t) => (t > 0 && t <= PLUCKED ? to : from), {
    seconds: PLUCK_LASTS,
    count: PLUCK_POINTS,
  });
  const hz = ohms.map((r) => hzFor(rows, r));
  const half = Math.sqrt(hz[0] * Math.max(...hz));
  const letGo = seconds.findIndex((t) => t > PLUCKED);
  const up = hz.findIndex((f) => f >= half);
  const down = hz.findIndex((f, k) => k >= letGo && f <= half);
  return {
    seconds,
    ohms,
    hz,
    upSeconds: up < 0 ? null : seconds[up],
    downSeconds: down < 0 ? null : seconds[down] - PLUCKED,
  };
}

/** The cut-off that belongs to a cell’s resistance, between two places of the travel. */
function hzFor(rows: readonly Lit[], ohms: number): number {
  // Along the travel there is more light and less resistance.
  const next = rows.findIndex((r) => r.cellOhms! <= ohms);
  if (next === 0) return rows[0].hz ?? NaN;
  if (next < 0) return rows[rows.length - 1].hz ?? NaN;
  const [a, b] = [rows[next - 1], rows[next]];
  const u = Math.log(ohms / a.cellOhms!) / Math.log(b.cellOhms! / a.cellOhms!);
  return along(a.hz ?? NaN, b.hz ?? NaN, u, true);
}
