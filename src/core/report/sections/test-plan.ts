import { formatFixed, inWords } from '@/core/quantity/format';
import { table, text } from '../report';
import type { SectionKind } from '../sheet-report';

/** How far a hand-held meter may be off, dB. */
const METER_DB = 0.1;

/** Where to measure a board by hand, and what it should read. */
export const testPlan: SectionKind = {
  title: 'Test plan',
  write({ foreseen }) {
    if (!foreseen) return [];
    const rows = foreseen.spots.flatMap(({ hz, level }) =>
      level
        ? [
            [
              inWords(hz, 'hertz'),
              `${formatFixed(level.p50, 2)} dB`,
              `${formatFixed(level.p1 - METER_DB, 2)} to ${formatFixed(level.p99 + METER_DB, 2)} dB`,
              '',
            ],
          ]
        : [],
    );
    return [
      text(
        'Check with a meter before power is put on; then low level first, with the output away from ears and loudspeakers. Output over input, each frequency:',
      ),
      table(['At', 'should be', 'all but one board in fifty', 'read'], rows, [0, 1, 2]),
    ];
  },
};
