import { crossoverPicture } from '@/core/crossover/picture';
import { isCrossover, type CrossoverDesign } from '@/core/crossover/crossover-design';
import { tuneCrossover, USUAL_WISH, withValuesAt } from '@/core/crossover/tune';
import { hallSpeaker, shelfSpeaker } from '@/core/demo/crossovers';
import { demoDrivers } from '@/core/demo/drivers';
import { withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { line, percentile, report } from './measure';

const AT = '2026-11-27T08:00:00.000Z';
const EDITS = 300;

const solved = (make: (at: string) => Sheet): Sheet & CrossoverDesign => {
  const sheet = withDrivers(make(AT), demoDrivers());
  if (!isCrossover(sheet)) throw new Error('No crossover.');
  return sheet;
};

/** Tuning both demo speakers from their textbook starts, and edits of the larger one. */
export function benchCrossover(): void {
  for (const [name, make] of [
    ['two-way', shelfSpeaker],
    ['three-way', hallSpeaker],
  ] as const) {
    const sheet = solved(make);
    const wish = { ...USUAL_WISH, acousticOrder: sheet.crossover.order + 1 };
    const from = performance.now();
    const { before, found } = tuneCrossover(sheet, wish);
    report(`Tuning the demo ${name}, to E12 and E24`, [(performance.now() - from) / 1000], 's');
    line('  sum within, before', before.withinDb, 'dB');
    line('  sum within, after', found[0].withinDb, 'dB');
    const exact = tuneCrossover(sheet, { ...wish, snap: false });
    line('  sum within, exact values', exact.found[0].withinDb, 'dB');
  }
  let sheet = solved(hallSpeaker);
  const times: number[] = [];
  for (let i = 0; i < EDITS; i++) {
    const value = 3.9e-3 * (1 + (i % 30) / 300);
    sheet = withValuesAt(sheet, [{ way: 'low', stage: 's1', part: 'L1', value }]);
    const from = performance.now();
    crossoverPicture(sheet);
    times.push(performance.now() - from);
  }
  report('Edit of the three-way, all layers and figures, engine', times, 'ms');
  line('  p95', percentile(times, 0.95), 'ms');
}
