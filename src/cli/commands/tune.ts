import type { Circuit } from '@/core/circuit/schema';
import { along } from '@/core/numeric/along';
import { tune as tuneCircuit } from '@/core/synth/tune';
import { varying, type Varied } from '@/core/synth/vary';
import {
  quantityOption,
  readArgs,
  readCircuitFile,
  required,
  UsageError,
  wholeNumber,
  type Command,
} from '../command';

const text = { type: 'string' } as const;

/** Options of whatever varies numbers of parts between two ends. */
export const VARY_OPTIONS = {
  vary: text,
  from: text,
  to: text,
  linear: { type: 'boolean' },
} as const;
export const VARY_USAGE = '--vary PART.field[,PART.field…] --from VALUE --to VALUE [--linear]';

/** The circuit for each value, and both ends. */
export function varyOptions(
  circuit: Circuit,
  values: { vary?: string; from?: string; to?: string },
): { at: Varied; from: number; to: number } {
  const names = required('vary', values.vary)
    .split(',')
    .map((name) => name.trim())
    .filter((name) => name !== '');
  if (names.length === 0) throw new UsageError('--vary names no number');
  const from = required('from', quantityOption('from', values.from, 'ratio'));
  const to = required('to', quantityOption('to', values.to, 'ratio'));
  return { at: varying(circuit, names), from, to };
}

export const tune: Command = {
  name: 'tune',
  usage: `FILE --probe net ${VARY_USAGE} --points N`,
  summary: 'corner, peak, plateau and Q while numbers of parts move together, solved anew at each',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { probe: text, points: text, ...VARY_OPTIONS },
      1,
    );
    const circuit = readCircuitFile(positionals[0]);
    const probe = required('probe', values.probe);
    const { at, from, to } = varyOptions(circuit, values);
    const points = wholeNumber('points', required('points', values.points), 1, 10_000);
    if (!values.linear && !(from > 0 && to > 0))
      throw new UsageError('--from and --to must be above zero, or give --linear for even steps');
    const rows = [...tuneCircuit(at, probe, stops(from, to, points, values.linear === true))];
    return { rows };
  },
};

/** Values from one end to the other, both included. */
function stops(from: number, to: number, points: number, even: boolean): number[] {
  return Array.from({ length: points }, (_, k) => {
    const u = points === 1 ? 0 : k / (points - 1);
    if (u === 1) return to;
    return along(from, to, u, !even);
  });
}
