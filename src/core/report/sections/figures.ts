import { figuresOf } from '@/core/differences/figures';
import { headroomLens } from '@/core/lenses/headroom';
import { impedanceLens } from '@/core/lenses/impedance';
import { noiseLens } from '@/core/lenses/noise';
import type { Pause } from '@/core/lenses/layers';
import { formatFixed, inWords } from '@/core/quantity/format';
import { printMeasured, readingName } from '@/core/sheet/words';
import { table, type ReportBlock } from '../report';
import type { SectionKind, SectionSubject } from '../sheet-report';
import { isCrossover } from '@/core/crossover/crossover-design';

/** What somebody wants to know who only connects and uses it. */
export const figures: SectionKind = {
  title: 'Figures',
  async write(subject, pause) {
    const { sheet } = subject;
    const rows = [
      ...readings(subject),
      ...(isCrossover(sheet) || sheet.bank ? [] : await electrical(subject, pause)),
    ];
    return [table(['', 'typical', 'nine in ten within'], rows, [1, 2])] satisfies ReportBlock[];
  },
};

function readings({ sheet, foreseen }: SectionSubject): string[][] {
  if (!foreseen) return figuresOf(sheet).map(({ name, words }) => [name, words, '']);
  const stages = sheet.ways[0].stages.map((s) => s.id);
  return sheet.readings.flatMap((reading, i) => {
    const spread = foreseen.spread.readings[i];
    if (!spread) return [];
    const print = (value: number) => printMeasured(reading.measure, value);
    return [
      [
        readingName(reading, 'point', stages),
        print(spread.p50),
        `${print(spread.p5)} to ${print(spread.p95)}`,
      ],
    ];
  });
}

/** What it shows the outside, and between which levels it is of use. */
async function electrical({ sheet }: SectionSubject, pause: Pause): Promise<string[][]> {
  const joints = await impedanceLens(sheet, pause);
  const first = joints.at(0)?.judged;
  const last = joints.at(-1)?.judged;
  const { opAmps } = await headroomLens(sheet, pause);
  const noise = await noiseLens(sheet, pause);
  const ohms = (x: number) => (Number.isFinite(x) ? inWords(x, 'ohms', 3) : 'none that counts');
  const [least] = opAmps;
  return [
    ...(first
      ? [[`Input impedance at ${inWords(first.atHz, 'hertz', 3)}`, ohms(first.loadOhms), '']]
      : []),
    ...(last
      ? [[`Output impedance at ${inWords(last.atHz, 'hertz', 3)}`, ohms(last.sourceOhms), '']]
      : []),
    ...(least
      ? [
          [
            `Most that may come in, r.m.s.; least at ${inWords(least.first.atHz, 'hertz', 2)}`,
            inWords(least.first.volts, 'volts', 2),
            '',
          ],
        ]
      : []),
    ['Noise at the output, A-weighted', inWords(noise.rmsVoltsA, 'volts', 2), ''],
    ['Signal over noise, A-weighted', `${formatFixed(noise.rangeDbA, 0)} dB`, ''],
  ];
}
