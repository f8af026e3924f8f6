import { size } from '@/core/numeric/complex';
import { standardTransfer } from '@/core/topologies/figures';
import type { SectionOrder } from './ask';
import type { Section } from './sections';

/*
 * In which order sections follow each other. Lowest Q first keeps inner nodes from peaking; the two
 * searches go through every order of up to seven sections (E. Lueder, "Optimization of the dynamic
 * range and the noise distance of RC-active filters by dynamic programming", 1975, gives the
 * measures used here).
 */

const POINTS = 60;

/** Levels of each section over the frequencies that matter, [section][frequency]. */
function levels(sections: readonly Section[]): Float64Array[] {
  const f = sections.map((s) => s.figures.f0Hz);
  const from = Math.min(...f) / 4;
  const to = Math.max(...f) * 4;
  const hz = Array.from({ length: POINTS }, (_, k) => from * (to / from) ** (k / (POINTS - 1)));
  return sections.map((s) =>
    Float64Array.from(hz, (h) => size(standardTransfer(s.kind, s.figures, h))),
  );
}

export function ordered(sections: readonly Section[], by: SectionOrder): Section[] {
  const byQ = [...sections].sort((a, b) => (a.figures.q ?? 0) - (b.figures.q ?? 0));
  if (by === 'lowest-q' || sections.length < 3 || sections.length > 7) return byQ;
  const level = levels(byQ);
  const cost = by === 'headroom' ? worstInnerPeak : outputNoise;
  let best = byQ.map((_, i) => i);
  let least = cost(best, level);
  for (const candidate of permutations(best)) {
    const c = cost(candidate, level);
    if (c < least - 1e-12) [best, least] = [candidate, c];
  }
  return best.map((i) => byQ[i]);
}

/** The highest peak of any inner node over that of the output. */
function worstInnerPeak(order: readonly number[], level: readonly Float64Array[]): number {
  const product = new Float64Array(POINTS).fill(1);
  let worst = 0;
  let last = 0;
  for (const i of order) {
    last = 0;
    for (let k = 0; k < POINTS; k++) last = Math.max(last, (product[k] *= level[i][k]));
    worst = Math.max(worst, last);
  }
  return worst / last;
}

/** Noise at the output when every section adds the same white noise at its own output. */
function outputNoise(order: readonly number[], level: readonly Float64Array[]): number {
  const after = new Float64Array(POINTS).fill(1);
  let sum = 0;
  for (let n = order.length - 1; n >= 0; n--) {
    for (let k = 0; k < POINTS; k++) {
      sum += after[k] * after[k];
      after[k] *= level[order[n]][k];
    }
  }
  return sum;
}

function* permutations(list: readonly number[]): Generator<number[]> {
  if (list.length < 2) {
    yield [...list];
    return;
  }
  for (let i = 0; i < list.length; i++)
    for (const rest of permutations([...list.slice(0, i), ...list.slice(i + 1)]))
      yield [list[i], ...rest];
}
