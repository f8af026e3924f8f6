import { deviceOf } from '@/core/circuit/devices';
import { highestOf } from '@/core/response/extremes';
import { levelsDb } from '@/core/response/response';
import { gridOver, levelOf, type ExactDesign } from './exact';
import type { JudgedBands } from './judged';

/**
 * The highest that the output of any amplifier comes to over the highest of the
 * path's own output, dB; zero where none stands higher.
 *
 * @returns null for a circuit without one: nothing in it can be overdriven
 */
export function innerPeak(exact: ExactDesign, { all }: JudgedBands): number | null {
  const nets = new Set(
    exact.circuit.parts.flatMap((part) => deviceOf(part.kind).drives?.(part) ?? []),
  );
  nets.delete(exact.circuit.ground);
  if (nets.size === 0) return null;
  const grid = gridOver(all, exact);
  const { probes } = exact.analysis.solve({ frequenciesHz: grid, probes: [...nets, 'out'] });
  const peakOf = (net: string) =>
    highestOf(levelOf(exact.analysis, net), grid, { values: levelsDb(probes[net]) }).value;
  const out = peakOf('out');
  return Math.max(0, ...[...nets].filter((net) => net !== 'out').map((net) => peakOf(net) - out));
}
