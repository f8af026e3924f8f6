import type { DecimalMark } from '@/core/quantity/parse';
import { quantityOfMeasure } from '@/core/response/readings';
import type { Sheet } from '@/core/sheet/schema';
import { spreadOfSheet } from '@/core/sheet/spread-sheet';
import { readingName } from '@/core/sheet/words';
import type { StockEntry } from '@/core/library/stock';
import type { Pause } from '@/core/lenses/layers';
import type { BenchStep } from './step';

const BOARDS = 200;
const SLICE = 40;
const SEED = 1;

/** A step for each reading that is pinned: what nearly all boards of these parts would read. */
export async function readingSteps(
  sheet: Sheet,
  drawer: readonly StockEntry[],
  mark: DecimalMark,
  pause: Pause,
): Promise<BenchStep[]> {
  if (sheet.readings.length === 0) return [];
  const run = spreadOfSheet(sheet, { boards: BOARDS, seed: SEED, drawer });
  while (run.drawn < BOARDS) {
    run.draw(SLICE);
    await pause();
  }
  const { readings } = run.result(false);
  const stages = sheet.ways[0].stages.map((s) => s.id);
  return sheet.readings.flatMap((reading, i): BenchStep[] => {
    const found = readings[i];
    if (!found) return [];
    return [
      {
        id: `reading-${reading.id}`,
        title: readingName(reading, mark, stages),
        detail: 'What 98 of 100 boards of such parts read, with the source’s level taken out.',
        expects: { quantity: quantityOfMeasure(reading.measure), least: found.p1, most: found.p99 },
      },
    ];
  });
}
