import { crossoverPicture } from '@/core/crossover/picture';
import { shelfSpeaker } from '@/core/demo/crossovers';
import { demoDrivers } from '@/core/demo/drivers';
import { demoSheets } from '@/core/demo/sheets';
import { withDrivers } from '@/core/sheet/references';
import { Audition } from './audition';
import { SLICE } from './heard';
import { heardOf } from './heard-circuit';
import { HeardSum, impulseOf } from './heard-sum';
import { USUAL_PROGRAM } from './program';
import { toItsEnd } from '@/core/to-its-end';

const AT = '2026-11-27T12:00:00.000Z';
const RATE = 48_000;
const SPEAKER = withDrivers(shelfSpeaker(AT), demoDrivers());
const BANK = demoSheets(AT).find((s) => s.bank)!;

/** Amplitude of a sine behind it, once it has settled, by its power. */
function heardAt(sheet: typeof SPEAKER, hz: number): number {
  const heard = new HeardSum(sheet, RATE);
  const [input, output] = [new Float64Array(SLICE), new Float64Array(SLICE)];
  let [squares, n, count] = [0, 0, 0];
  for (let k = 0; k < 400; k++) {
    for (let i = 0; i < SLICE; i++) input[i] = Math.sin((2 * Math.PI * hz * n++) / RATE);
    heard.play(input, output);
    if (k < 200) continue;
    for (const v of output) squares += v * v;
    count += SLICE;
  }
  return Math.sqrt((2 * squares) / count);
}

test('a crossover sounds as loud at each place as its sum is high', () => {
  const { frequenciesHz, layers } = crossoverPicture(SPEAKER);
  const { sumDb } = layers.find((l) => l.id === 'built')!;
  const at = (hz: number) => frequenciesHz.findIndex((f) => f >= hz);
  const apart = [100, 200, 400, 1000, 2000, 4000, 8000].map((hz) => {
    const k = at(hz);
    return 20 * Math.log10(heardAt(SPEAKER, frequenciesHz[k])) - sumDb[k];
  });
  for (const db of apart) expect(db - apart[0]).toBeCloseTo(0, 0);
  expect(Math.max(...apart) - Math.min(...apart)).toBeLessThan(0.2);
});

test('a bank sounds as its mix: loud at its centres, quiet far beyond', () => {
  const centres = BANK.bank!.channels.map((c) => c.centreHz);
  const [low, high] = [Math.min(...centres), Math.max(...centres)];
  expect(heardAt(BANK, centres[3])).toBeGreaterThan(10 * heardAt(BANK, low / 4));
  expect(high).toBeGreaterThan(low);
  const taps = impulseOf(BANK, RATE);
  // What comes before the first sound is nothing.
  const most = Math.max(...taps.map(Math.abs));
  expect(Math.max(...taps.slice(-200).map(Math.abs))).toBeLessThan(0.05 * most);
});

test('is auditioned as any circuit; another value makes another response', () => {
  expect(heardOf(SPEAKER, 0, RATE, 8)).toBeInstanceOf(HeardSum);
  const audition = new Audition(RATE, () => 0);
  toItsEnd(audition.play({ ...USUAL_PROGRAM, sound: 'noise' }));
  toItsEnd(audition.load('a', SPEAKER));
  const slice = new Float32Array(SLICE);
  let most = 0;
  for (let k = 0; k < 200; k++) {
    audition.next(slice);
    most = Math.max(most, ...slice);
  }
  expect(most).toBeGreaterThan(0.02);
  expect(audition.state('a')).toMatchObject({ times: 1, lost: 0 });
  const heard = new HeardSum(SPEAKER, RATE);
  expect(heard.take(structuredClone(SPEAKER))).toBeDefined();
  expect(heard.take({ ...SPEAKER, ways: SPEAKER.ways.slice(0, 1) })).toBeUndefined();
});

test('goes back as far as is ever made ahead, and plays on as it did', () => {
  const heard = new HeardSum(BANK, RATE);
  const play = (from: number, slices: number) =>
    Array.from({ length: slices }, (_, s) => {
      const input = Float64Array.from({ length: SLICE }, (_v, k) =>
        Math.sin(0.07 * (from + s * SLICE + k) ** 1.1),
      );
      const output = new Float64Array(SLICE);
      heard.play(input, output);
      return [...output];
    }).flat();
  play(0, 200);
  const back = heard.mark();
  const first = play(200 * SLICE, 128);
  back();
  expect(play(200 * SLICE, 128)).toEqual(first);
});
