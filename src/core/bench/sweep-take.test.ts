import { AcAnalysis } from '@/core/analysis/ac/ac';
import { phaseDegrees, levelDb } from '@/core/response/response';
import { seededRandom } from '@/core/random';
import { levelAdvice, risingTone } from '@/core/sweep/level-check';
import type { Recording } from '@/core/sweep/swept';
import { USUAL_DEVIATIONS } from '@/core/sheet/usual-deviations';
import type { Sheet } from '@/core/sheet/schema';
import { newSheet } from '@/testing/open-sheet';
import { boardCircuit } from './board-circuit';
import { compareTake } from './compare';
import { SOUND_CARD } from './meters';
import { playRigBoard } from './rig-board';
import { loudestHz, sweepPlan, sweepSamples } from './sweep-plan';
import { takeOfSweep } from './sweep-take';

const OPEN = newSheet();
const SHEET: Sheet = {
  ...OPEN,
  view: { ...OPEN.view, fromHz: 20, toHz: 20_000 },
  parts: {
    ...OPEN.parts,
    deviations: { ...USUAL_DEVIATIONS, resistor: 0, capacitor: 0, inductor: 0, opAmp: 0 },
  },
};
const RATE = 48_000;
const LEVEL = 0.6;
const plan = sweepPlan(SHEET.view, RATE, 0.7);
const samples = sweepSamples(plan, LEVEL);
const board = { seed: 4, fault: '', meter: SOUND_CARD };
const play = { sheet: SHEET, board, through: 'board', samples, times: 2, turn: 1 } as const;
const [first, second] = playRigBoard(play);
const wire = {
  recording: playRigBoard({ ...play, through: 'wire', times: 1 })[0],
  level: LEVEL,
};
const apart = (a: number, b: number) => Math.abs(((a - b + 540) % 360) - 180);

describe('a board swept through the simulated sound card', () => {
  const { curve, drowned, peak } = takeOfSweep({
    view: SHEET.view,
    plan,
    level: LEVEL,
    recordings: [first, second],
    loopBack: wire,
  });
  const { circuit, probe } = boardCircuit(SHEET, undefined, [], { meter: SOUND_CARD });
  const exact = new AcAnalysis(circuit).voltage(probe, Float64Array.from(curve.frequenciesHz));
  const off = curve.levelDb.map((db, k) => Math.abs(db - levelDb(exact.re[k], exact.im[k])));

  test('is its response within what noise does, which is told', () => {
    expect(curve.frequenciesHz[0]).toBeCloseTo(20, 6);
    expect(peak).toBeLessThan(1);
    curve.frequenciesHz.forEach((_, k) => {
      const noise = Math.hypot(curve.noiseDb![k], 0.01);
      expect(off[k]).toBeLessThan(5 * noise);
      expect(apart(curve.phaseDegrees![k], phaseDegrees(exact.re[k], exact.im[k]))).toBeLessThan(
        0.2 + 35 * noise,
      );
    });
    // Above what noise reaches: a tenth of a decibel and a degree.
    const clear = curve.levelDb.flatMap((db, k) => (db > -45 ? [k] : []));
    expect(clear.length).toBeGreaterThan(40);
    for (const k of clear) expect(off[k]).toBeLessThan(0.1);
    expect(drowned + curve.levelDb.length).toBe(81);
  });

  test('what is told of noise is neither too much nor too little', () => {
    const noisy = off.flatMap((db, k) =>
      curve.noiseDb![k] > 0.03 ? [db / curve.noiseDb![k]] : [],
    );
    expect(noisy.length).toBeGreaterThan(3);
    const rms = Math.sqrt(noisy.reduce((sum, v) => sum + v * v, 0) / noisy.length);
    expect(rms).toBeGreaterThan(0.3);
    expect(rms).toBeLessThan(2.5);
  });
});

test('without a loop-back there is no phase; with one of another level all is as it was', () => {
  const recordings = [first];
  const request = { view: SHEET.view, plan, level: LEVEL, recordings };
  const bare = takeOfSweep(request).curve;
  expect(bare.phaseDegrees).toBeUndefined();
  expect(bare.noiseDb).toBeUndefined();
  const half = sweepSamples(plan, LEVEL / 2);
  const [softer] = playRigBoard({ ...play, through: 'wire', samples: half, turn: 9 });
  const whole = takeOfSweep({ ...request, loopBack: { recording: softer, level: LEVEL / 2 } });
  const known = takeOfSweep({ ...request, loopBack: wire });
  for (const k of [0, 20, 40])
    expect(whole.curve.levelDb[k]).toBeCloseTo(known.curve.levelDb[k], 1);
});

test('its culprit is found though half of the curve lies in the noise', () => {
  const own = { ...board, fault: 'C3=*1.4' };
  const quiet = 0.003;
  const low = sweepSamples(plan, quiet);
  const { curve, drowned } = takeOfSweep({
    view: SHEET.view,
    plan,
    level: quiet,
    recordings: playRigBoard({ ...play, board: own, samples: low }),
  });
  expect(drowned).toBeGreaterThan(0);
  const { findings } = compareTake(SHEET, undefined, { ...curve, meter: SOUND_CARD });
  expect(findings.ranking[0].parts[0].id).toBe('C3');
  expect(findings.ranking[0].parts[0].factor).toBeCloseTo(1.4, 1);
});

describe('what is no recording of the sweep is refused', () => {
  const random = seededRandom(5);
  const view = { fromHz: 100, toHz: 3000 };
  const short = sweepPlan(view, 8000, 0.7);
  const played = sweepSamples(short, LEVEL);
  const made = (sample: (n: number) => number): Recording => ({
    samples: Float64Array.from({ length: 1.5 * played.length }, (_, n) => sample(n)),
    rate: short.rate,
  });
  const noise = () => made(() => 0.3 * (random() - 0.5));
  const other = sweepSamples({ ...short, fromHz: 300, seconds: 0.5 }, 0.5);
  const own = made((n) => played[n - 100] || 0);
  const take = (recordings: Recording[], loopBack?: Recording) =>
    takeOfSweep({
      view,
      plan: short,
      level: LEVEL,
      recordings,
      ...(loopBack ? { loopBack: { recording: loopBack, level: LEVEL } } : {}),
    });

  test('while the sweep itself is not', () => {
    for (const db of take([own, own], own).curve.levelDb) expect(Math.abs(db)).toBeLessThan(0.01);
  });

  test.each<[string, Recording]>([
    ['noise', noise()],
    ['a steady tone', made((n) => 0.3 * Math.sin(n / 20))],
    ['another sweep', made((n) => other[n] || 0)],
  ])('%s', (_, recording) => {
    expect(() => take([recording])).toThrow('What came back is not this sweep');
    expect(() => take([own], recording)).toThrow('The loop-back is not this sweep');
  });

  test('sweeps that are not alike: something else, or something that was lost on the way', () => {
    expect(() => take([own, noise()])).toThrow('not alike');
    const lost = made((n) => played[n - 100 + (n > 2000 ? 300 : 0)] || 0);
    expect(() => take([own, lost])).toThrow('not alike');
    expect(() => take([lost, own])).toThrow('not alike');
  });

  test('but one that came later is put in step, and phase is not told', () => {
    const late = made((n) => played[n - 900] || 0);
    const { curve, hasMoved } = take([own, late], own);
    expect(hasMoved).toBe(true);
    expect(curve.phaseDegrees).toBeUndefined();
    for (const db of curve.levelDb) expect(Math.abs(db)).toBeLessThan(0.01);
    for (const db of curve.noiseDb!) expect(db).toBeLessThan(0.01);
    expect(take([own, own], own).curve.phaseDegrees).toBeDefined();
  });
});

test.each([0.3, 0.45, 0.6, 0.75, 0.8, 0.86, 0.9])(
  'a sample that was lost of one of two sweeps, or came twice, %s of its way, is seen',
  (part) => {
    // Its power hardly tells: at 0.75 of the way levels are off by 0.4 dB, and 5 % of it differ. Beyond
    // 0.8 the board lets little through: levels 20 dB down are off by up to 1 dB.
    const at = Math.round(part * samples.length);
    const all = second.samples;
    const lost = Float64Array.of(...all.subarray(0, at), ...all.subarray(at + 1), 0);
    const twice = Float64Array.of(...all.subarray(0, at), all[at], ...all.subarray(at, -1));
    for (const spoiled of [lost, twice]) {
      const other = { ...second, samples: spoiled };
      for (const recordings of [
        [first, other],
        [other, first],
      ])
        expect(() => takeOfSweep({ view: SHEET.view, plan, level: LEVEL, recordings })).toThrow(
          /not alike.*lost on the way/,
        );
    }
  },
);

test.each([0.001, 0.01, 0.03])(
  'hum of %s that comes otherwise each time has lost nothing',
  (size) => {
    const hummed = ({ samples: heard, ...one }: Recording, phase: number): Recording => ({
      ...one,
      samples: heard.map((v, n) => v + size * Math.sin((2 * Math.PI * 50 * n) / RATE + phase)),
    });
    for (const phase of [0.3, 1.5, 3]) {
      const recordings = [hummed(first, 0), hummed(second, phase)];
      expect(() => takeOfSweep({ view: SHEET.view, plan, level: LEVEL, recordings })).not.toThrow();
    }
  },
);

test('a picture that a rate does not reach into is refused with both', () => {
  expect(() => sweepPlan({ fromHz: 18_000, toHz: 80_000 }, RATE, 1)).toThrow(
    'a sweep reaches 21600 Hz, and the sheet’s picture begins at 18000 Hz',
  );
  expect(sweepPlan({ fromHz: 1, toHz: 400 }, RATE, 1)).toMatchObject({ fromHz: 4, toHz: 800 });
});

test('a level is checked where the board is loudest', () => {
  const peaked = newSheet({
    ...SHEET.ask,
    order: 2,
    shape: 'chebyshev',
    rippleDb: 3,
    edgeHz: 1000,
  });
  const hz = loudestHz(boardCircuit(peaked, undefined), Float64Array.of(50, 200, 700, 3000, 9000));
  expect(hz).toBe(700);
});

test('the tone of a level check rises from nearly nothing, and what comes back is judged', () => {
  const tone = risingTone(1000, 0.5, 2, RATE);
  const highest = (from: number, to: number) =>
    tone.subarray(from, to).reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  expect(highest(0, 480)).toBeLessThan(0.001);
  expect(highest(RATE - 480, RATE)).toBeCloseTo(0.5 * 10 ** -1.5, 2);
  expect(highest(0, tone.length)).toBeLessThanOrEqual(0.5);
  expect(Math.abs(tone[tone.length - 1])).toBeLessThan(0.01);
  expect(levelAdvice(0)).toMatchObject({ is: 'silent', changeDb: 0 });
  expect(levelAdvice(0.01)).toMatchObject({ is: 'quiet', changeDb: 31 });
  expect(levelAdvice(0.3)).toMatchObject({ is: 'good', changeDb: 0 });
  expect(levelAdvice(0.9)).toMatchObject({ is: 'loud', changeDb: -8 });
  expect(levelAdvice(1).is).toBe('clipped');
});
