import { highestOf } from '@/core/response/extremes';
import { gridOver, levelOf, type ExactDesign } from './exact';
import type { JudgedBands } from './judged';

/**
 * The highest that the output of any op-amp or transconductor comes to over the highest of the
 * path's own output, dB; zero where none stands higher.
 *
 * @returns null for a circuit without either: nothing in it can be overdriven
 */
export function innerPeak(exact: ExactDesign, { all }: JudgedBands): number | null {
  const nets = new Set(
    exact.circuit.parts.flatMap((p) =>
      p.kind === 'op-amp' ? [p.out] : p.kind === 'transconductor' ? [p.from, p.to] : [],
    ),
  );
  nets.delete(exact.circuit.ground);
  if (nets.size === 0) return null;
  nets.delete('out');
  const grid = gridOver(all, exact);
  const out = highestOf(exact.level, grid).value;
  const { probes } = exact.analysis.solve({ frequenciesHz: grid, probes: [...nets] });
  let most = 0;
  for (const net of nets) {
    const values = probes[net].re.map(
      (re, k) => 20 * Math.log10(Math.max(1e-20, Math.hypot(re, probes[net].im[k]))),
    );
    most = Math.max(most, highestOf(levelOf(exact.analysis, net), grid, { values }).value - out);
  }
  return most;
}
