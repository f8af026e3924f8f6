import { ReedError } from '@/core/errors';
import { readWav, wavOf } from '@/core/formats/wav';
import { readTakeTable, takeTable } from '@/core/library/take-table';
import { seededRandom } from '@/core/random';
import { takeOfImpulse } from './impulse-take';
import { sweepPlan, sweepSamples } from './sweep-plan';
import { takeOfSweep } from './sweep-take';

/*
 * Takes and recordings that are wrong in ways that are drawn by lot: each is refused in words, and none
 * is read in part.
 */

const random = seededRandom(14);
const whole = (below: number) => Math.floor(random() * below);
const oneOf = <T>(list: readonly T[]): T => list[whole(list.length)];

/** A table as people have them, of so many lines. */
function goodTable(): string[] {
  const points = 5 + whole(40);
  const frequenciesHz = Array.from({ length: points }, (_, k) => 20 * 1.13 ** k);
  return takeTable({
    frequenciesHz,
    levelDb: frequenciesHz.map(() => -30 * random()),
    ...(random() < 0.5 ? { phaseDegrees: frequenciesHz.map(() => 180 * random()) } : {}),
  })
    .trimEnd()
    .split('\n');
}

/** What can be wrong with one line of a table. */
const SPOILED: Readonly<Record<string, (cells: string[], before: string[]) => string>> = {
  'letters in the level': ([hz, , ...rest]) =>
    [hz, oneOf(['up', '1O', 'x2', '--3']), ...rest].join(),
  'no level': ([hz]) => hz,
  'a frequency of nought': ([, ...rest]) => ['0', ...rest].join(),
  'a frequency below nought': ([hz, ...rest]) => [`-${hz}`, ...rest].join(),
  'a frequency a second time': ([, ...rest], before) => [before[0], ...rest].join(),
  'a level that is none': ([hz, , ...rest]) =>
    [hz, oneOf(['9999', '-5000', '1e9']), ...rest].join(),
  'no number': ([hz, , ...rest]) => [hz, oneOf(['NaN', 'Infinity', '-Infinity']), ...rest].join(),
};

test.each(Object.keys(SPOILED))('forty tables each with one line spoiled: %s', (kind) => {
  for (let n = 0; n < 40; n++) {
    const lines = goodTable();
    expect(readTakeTable(lines.join('\n')).levelDb).toHaveLength(lines.length - 1);
    const at = 2 + whole(lines.length - 2);
    const spoiled = [...lines];
    spoiled[at] = SPOILED[kind](lines[at].split(','), lines[at - 1].split(','));
    let said = '';
    try {
      readTakeTable(spoiled.join('\n'));
    } catch (error) {
      expect(error).toBeInstanceOf(ReedError);
      said = (error as ReedError).message;
    }
    // It says which line it is.
    expect(said).toContain(`Line ${at + 1} `);
  }
});

const RATE = 8000;
const VIEW = { fromHz: 100, toHz: 3000 };
const plan = sweepPlan(VIEW, RATE, 0.5);
const LEVEL = 0.5;
const played = sweepSamples(plan, LEVEL);
const click = Float64Array.from({ length: 2000 }, (_, n) => (n < 50 ? 0 : 0.9 ** (n - 50)));

/** A recording that comes back late, at some level, with a little noise. */
const goodSweep = () => {
  const [late, size] = [whole(1500), 0.1 + 0.8 * random()];
  return Float64Array.from(
    { length: 2 * played.length },
    (_, n) => size * (played[n - late] || 0) + 1e-3 * (random() - 0.5),
  );
};

/** What can be wrong with a recording. */
const UNLIKE: Readonly<Record<string, (samples: Float64Array) => Float64Array>> = {
  silent: (s) => s.map(() => 0),
  clipped: (s) => s.map((v) => Math.max(-1, Math.min(1, (30 * v) / LEVEL))),
  'cut off': (s) => s.slice(0, Math.round(played.length * (0.2 + 0.7 * random()))),
  noise: (s) => s.map(() => random() - 0.5),
  'a tone': (s) => {
    const step = 0.01 + random();
    return s.map((_, n) => 0.5 * Math.sin(step * n));
  },
  backwards: (s) => s.slice().reverse(),
  'not a number': (s) => s.map((v, n) => (n === 100 ? oneOf([NaN, Infinity]) : v)),
};

test.each(Object.keys(UNLIKE))('sixteen recordings each: %s', (kind) => {
  for (let n = 0; n < 16; n++) {
    const good = goodSweep();
    const request = { view: VIEW, plan, level: LEVEL };
    const recording = (samples: Float64Array) => ({ samples, rate: RATE });
    if (n === 0)
      expect(
        takeOfSweep({ ...request, recordings: [recording(good)] }).curve.levelDb.length,
      ).toBeGreaterThan(40);
    const bad = recording(UNLIKE[kind](good));
    const refused = (recordings: (typeof bad)[], loopBack?: typeof bad) => () =>
      takeOfSweep({
        ...request,
        recordings,
        ...(loopBack ? { loopBack: { recording: loopBack, level: LEVEL } } : {}),
      });
    // By itself, among good ones, and as a loop-back.
    expect(refused([bad])).toThrow(ReedError);
    if (n % 4 === 0) {
      expect(refused([recording(good), bad])).toThrow(ReedError);
      expect(refused([recording(good)], bad)).toThrow(ReedError);
    }
  }
});

test('a hundred and fifty files that were WAV files: each is read as it was or refused in words', () => {
  const good = wavOf(click, RATE);
  const samples = readWav(good, 'good.wav').samples;
  expect(takeOfImpulse(VIEW, { samples, rate: RATE }).levelDb.length).toBeGreaterThan(40);
  let refused = 0;
  for (let n = 0; n < 150; n++) {
    const bytes = good.slice(0, n % 3 === 0 ? whole(60) : undefined);
    // Three bytes of the header are something else.
    for (let k = 0; k < 3 && bytes.length > 0; k++)
      bytes[whole(Math.min(44, bytes.length))] = whole(256);
    try {
      const { samples: read, rate } = readWav(bytes, 'spoiled.wav');
      const { frequenciesHz, levelDb } = takeOfImpulse(VIEW, { samples: read, rate });
      for (const db of levelDb) expect(Number.isFinite(db)).toBe(true);
      expect(levelDb).toHaveLength(frequenciesHz.length);
    } catch (error) {
      expect(error).toBeInstanceOf(ReedError);
      expect((error as ReedError).message).toMatch(/“spoiled\.wav”|[Rr]ecording/);
      refused++;
    }
  }
  expect(refused).toBeGreaterThan(90);
});
