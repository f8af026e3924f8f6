import type { DecimalMark } from '@/core/quantity/parse';
import { quantityOfMeasure } from '@/core/response/readings';
import type { Sheet } from '@/core/sheet/schema';
import { formatQuantity } from '@/core/quantity/format';
import { readingName } from '@/core/sheet/words';
import { spotStep, type Foreseen } from '../foreseen';
import type { BenchStep } from './step';

/** Only when all was measured is it listened to. */
export const LAST = 'listen';

/** The steps of a board with what should be read of it, before the last of them. */
export function withForeseen(
  steps: readonly BenchStep[],
  sheet: Sheet,
  foreseen: Foreseen,
  mark: DecimalMark,
): BenchStep[] {
  return [
    ...steps.filter(({ id }) => id !== LAST),
    ...spotSteps(foreseen, mark),
    ...readingSteps(sheet, foreseen, mark),
    ...steps.filter(({ id }) => id === LAST),
  ];
}

/** What is done once for all ways of a crossover, which stand on one board. */
const OF_THE_BOARD = /^(?:solder-.*|inspect|rails-apart|rails|amplifiers|listen)$/;

/** The steps of one path of a sheet, under names that no other path’s steps have. */
export const stepsOfWay = (steps: readonly BenchStep[], sheet: Sheet, own: string): BenchStep[] =>
  steps.map((step) =>
    OF_THE_BOARD.test(step.id) && !sheet.bank ? step : { ...step, id: `${own}${step.id}` },
  );

/** What two readings of one meter may differ by, dB. */
const METER_DB = 0.1;

/** A step for each frequency of the plan: what nearly all boards of these parts measure there. */
function spotSteps({ spots }: Foreseen, mark: DecimalMark): BenchStep[] {
  return spots.flatMap(({ hz, level }, k): BenchStep[] => {
    if (!level) return [];
    return [
      {
        id: spotStep({ hz }),
        title: `Level at ${formatQuantity(hz, 'hertz', { digits: 3, unit: true, mark })}`,
        detail:
          k === 0
            ? 'Output over input, in dB: measure both with one meter, at this frequency. Between these limits lie 98 of 100 boards of such parts, a meter’s tenth of a decibel counted in.'
            : 'Output over input.',
        expects: {
          quantity: 'decibels',
          least: level.p1 - METER_DB,
          most: level.p99 + METER_DB,
        },
      },
    ];
  });
}

/** A step for each reading that is pinned: what nearly all boards of these parts would read. */
function readingSteps(
  sheet: Sheet,
  { spread: { readings } }: Foreseen,
  mark: DecimalMark,
): BenchStep[] {
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
