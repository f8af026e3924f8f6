import { transient } from '@/core/analysis/transient/transient';
import { otaCascade } from '@/core/cells/ota-cascade';
import { transistorLadder } from '@/core/cells/transistor-ladder';
import { SOURCE } from '@/core/circuit/unit-source';
import { withWave } from '@/core/synth/render';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { voiceSheet } from '@/core/sheet/voice';
import { toItsEnd } from '@/core/to-its-end';
import { newSheet } from '@/testing/open-sheet';
import { Audition } from './audition';
import { Decimator, halfBandTaps } from './half-band';
import { SLICE } from './heard';
import { HeardCircuit } from './heard-circuit';
import { CEILING, Limiter } from './limiter';
import { Oscillator, SOUNDS } from './oscillator';
import { openedBy, programSchema, USUAL_PROGRAM, type Program } from './program';
import { rendered } from './rendered';
import { Score } from './score';

const RATE = 48_000;
const AT = '2026-11-27T08:00:00.000Z';
const voice = (cell = otaCascade): Sheet =>
  voiceSheet({
    id: 'v',
    title: 'V',
    at: AT,
    cell,
    ...cell.usual,
    source: { name: 'Oscillator', ohms: 1000, volts: 5 },
    load: { name: 'Amplifier', ohms: 47_000 },
  });

/** Level of one frequency in samples, as the amplitude of a sine. */
function amplitude(samples: ArrayLike<number>, hz: number, rate = RATE): number {
  let [re, im] = [0, 0];
  for (let k = 0; k < samples.length; k++) {
    // A window, so that strong neighbours do not leak.
    const w = 1 - Math.cos((2 * Math.PI * k) / samples.length);
    re += w * samples[k] * Math.cos((2 * Math.PI * hz * k) / rate);
    im += w * samples[k] * Math.sin((2 * Math.PI * hz * k) / rate);
  }
  return (2 * Math.hypot(re, im)) / samples.length;
}

describe('sounds', () => {
  test.each(SOUNDS)('%s stays within a volt or so, about nought', (sound) => {
    const oscillator = new Oscillator(sound, RATE);
    oscillator.strike();
    const volts = Float64Array.from({ length: RATE }, () => oscillator.next(220));
    const middle = volts.reduce((a, b) => a + b, 0) / volts.length;
    // A pulse rests mostly low.
    expect(Math.abs(middle - (sound === 'pulse' ? -0.6 : 0))).toBeLessThan(0.02);
    expect(volts.every((v) => Math.abs(v) < 1.2)).toBe(true);
    expect(volts.some((v) => Math.abs(v) > 0.6)).toBe(true);
  });

  test('of a saw the partials are there, and what folds down is taken out', () => {
    const oscillator = new Oscillator('saw', 8 * RATE);
    const volts = Float64Array.from({ length: 4 * RATE }, () => oscillator.next(1237));
    for (const n of [1, 2, 5])
      expect(amplitude(volts, 1237 * n, 8 * RATE) / (2 / (Math.PI * n))).toBeCloseTo(1, 2);
    // Partials beyond half the rate would lie between those that are there.
    expect(amplitude(volts, 1237 * 1.5, 8 * RATE)).toBeLessThan(3e-4);
  });
});

test('halving passes up to 20 kHz unchanged and stops what would fold onto that', () => {
  for (const times of [2, 4, 8]) {
    const gain = (hz: number) => {
      const decimator = new Decimator(times, SLICE);
      const input = new Float64Array(SLICE * times);
      const heard: number[] = [];
      const output = new Float64Array(SLICE);
      for (let s = 0, k = 0; s < 60; s++) {
        for (let i = 0; i < input.length; i++)
          input[i] = Math.sin((2 * Math.PI * hz * k++) / (RATE * times));
        decimator.run(input, output);
        if (s >= 8) heard.push(...output);
      }
      // What is stopped folds down: all that is heard then counts.
      if (hz > 20_000) return Math.sqrt((2 * heard.reduce((a, v) => a + v * v, 0)) / heard.length);
      return amplitude(heard, hz);
    };
    for (const hz of [100, 10_000, 20_000]) expect(gain(hz)).toBeCloseTo(1, 3);
    for (const hz of [28_000, RATE * times - 28_100].filter((f) => f < (RATE * times) / 2))
      expect(gain(hz)).toBeLessThan(3e-5);
  }
  // Every second tap but the middle is nought: that is what makes them cheap.
  const taps = halfBandTaps(0.2);
  const middle = (taps.length - 1) / 2;
  taps.forEach((t, k) => (k - middle) % 2 === 0 && k !== middle && expect(t).toBeCloseTo(0, 12));
});

test('the limiter lets quiet sound pass as it is and never more than its ceiling', () => {
  const limiter = new Limiter(RATE);
  for (const x of [0.1, -0.49, 0.3]) expect(limiter.next(x)).toBe(x);
  for (const x of [40, -3, 1e9, 0.2, NaN, Infinity])
    expect(Math.abs(limiter.next(x))).toBeLessThanOrEqual(CEILING);
  expect(limiter.gain).toBeLessThan(1e-6);
});

test('a program is checked, and its envelope goes up and comes down', () => {
  expect(programSchema.safeParse(USUAL_PROGRAM).success).toBe(true);
  expect(programSchema.safeParse({ ...USUAL_PROGRAM, hz: -1 }).success).toBe(false);
  const program = { ...USUAL_PROGRAM, attackSeconds: 0.01, decaySeconds: 0.1 };
  expect(openedBy(program, 0.005)).toBeCloseTo(0.5, 9);
  expect(openedBy(program, 0.11)).toBeCloseTo(Math.exp(-1), 9);
  expect(openedBy({ ...program, attackSeconds: 0 }, 0)).toBe(1);
});

test('keys take over from the sequence while they are held, the last one first', () => {
  const score = new Score(RATE);
  score.play({ ...USUAL_PROGRAM, sound: 'sine', notes: [0], follows: true, opens: 0 });
  const octaves = () => {
    score.follow();
    return score.opened({ span: 1 });
  };
  expect(octaves()).toBe(0);
  score.press(12);
  score.press(24);
  expect(octaves()).toBe(2);
  score.release(24);
  expect(octaves()).toBe(1);
});

const still = (change: Partial<Program> = {}): Program => ({
  ...USUAL_PROGRAM,
  sound: 'sine',
  hz: 440,
  volts: 2,
  notes: [],
  opens: 0,
  ...change,
});

describe('a circuit as it is heard', () => {
  const played = (circuit: HeardCircuit, slices: number, program: Program) => {
    const score = new Score(RATE);
    score.play(program);
    const all: number[] = [];
    const output = new Float64Array(SLICE);
    return {
      all,
      go: (n = slices) => {
        for (let k = 0; k < n; k++) {
          score.follow();
          circuit.open(score.opened(circuit));
          circuit.play(score.source(circuit.times), output);
          score.passed();
          all.push(...output);
        }
      },
    };
  };

  test('turns a knob without a click, and then sounds as if it had been made so', () => {
    const sheet = voice();
    const circuit = new HeardCircuit(sheet, 0, RATE, 4);
    const { all, go } = played(circuit, 60, still({ hz: 300 }));
    go(60);
    const turned = { ...sheet, controls: sheet.controls.map((c) => ({ ...c, at: 0.2 })) };
    circuit.take(turned)!();
    go(180);
    const steps = all.slice(1).map((v, k) => Math.abs(v - all[k]));
    const before = Math.max(...steps.slice(1500, 60 * SLICE - 2));
    // No step from sample to sample stands out among those of the tone itself.
    expect(Math.max(...steps.slice(60 * SLICE - 2))).toBeLessThan(1.6 * before);
    // What it comes to is what one that was made so comes to.
    const made = played(new HeardCircuit(turned, 0, RATE, 4), 240, still({ hz: 300 }));
    made.go();
    // The filter itself rings on for some hundredths of a second.
    const after = 60 * SLICE + 0.15 * RATE;
    const level = (x: number[]) => amplitude(x.slice(after, after + 3200), 300);
    expect(level(all) / level(made.all)).toBeCloseTo(1, 3);
  });

  test('opens the cut-off with each note, and only that', () => {
    const circuit = new HeardCircuit(voice(), 0, RATE, 2);
    expect(circuit.span).toBeCloseTo(Math.log2(400), 9);
    const level = (opens: number) => {
      const { all, go } = played(
        new HeardCircuit(voice(), 0, RATE, 2),
        300,
        still({ hz: 4000, notes: [0], beatsPerMinute: 20, opens, decaySeconds: 20 }),
      );
      go();
      return amplitude(all.slice(9600), 4000);
    };
    expect(level(0.3)).toBeGreaterThan(10 * level(0));
  });

  test('knows what is wired otherwise', () => {
    const circuit = new HeardCircuit(voice(), 0, RATE, 1);
    expect(circuit.take(voice(transistorLadder))).toBeUndefined();
  });
});

describe('what is written to a file', () => {
  test.each([
    ['a sheet of op-amps', newSheet(), 1],
    [
      'transconductors near singing',
      {
        ...voice(),
        controls: voice().controls.map((c) => (c.for === 'resonance' ? { ...c, at: 0.8 } : c)),
      },
      5,
    ],
    ['a transistor ladder', voice(transistorLadder), 5],
  ] as const)('equals the engine’s run to -80 dB: %s', (_, sheet, volts) => {
    const seconds = 0.06;
    const program = still({ volts, hz: 500 });
    const samples = toItsEnd(rendered(sheet, { way: 0, program, seconds, rate: RATE }));
    const out = outNet(sheet);
    const times = 16;
    const { probes } = transient(
      withWave(pathCircuit(sheet, 0, 'built'), {
        source: SOURCE,
        wave: 'sine',
        hz: program.hz,
        volts: program.volts,
        rate: 1,
      }),
      { untilSeconds: seconds, stepSeconds: 1 / (RATE * times), probes: [out], tolerance: 1e-6 },
    );
    // The capacitor that takes the direct voltage out turns low tones a little: done here too.
    const keep = 1 - (2 * Math.PI * 5) / RATE;
    let held = 0;
    const expected = Array.from(samples, (_v, k) => {
      const [now, before] = [probes[out][k * times], probes[out][Math.max(0, k - 1) * times]];
      held = now - before + keep * held;
      return held;
    });
    const from = 480;
    const power = (x: (k: number) => number) => {
      let sum = 0;
      for (let k = from; k < samples.length; k++) sum += x(k) ** 2;
      return sum;
    };
    const off = power((k) => samples[k] - expected[k]) / power((k) => expected[k]);
    expect(10 * Math.log10(off)).toBeLessThan(-80);
  });
});

describe('an audition', () => {
  const heard = (audition: Audition, slices: number) => {
    const all: number[] = [];
    const output = new Float32Array(SLICE);
    for (let k = 0; k < slices; k++) {
      audition.next(output);
      all.push(...output);
    }
    return all;
  };
  const rms = (x: number[]) => Math.sqrt(x.reduce((s, v) => s + v * v, 0) / x.length);
  /** A clock that makes everything look cheap. */
  const still0 = () => 0;

  test('brings two circuits to one level, and goes from one to the other without a click', () => {
    const audition = new Audition(RATE, still0);
    toItsEnd(audition.play(still({ hz: 200, sound: 'saw' })));
    expect(audition.ready).toBe(false);
    expect(heard(audition, 1).every((v) => v === 0)).toBe(true);
    toItsEnd(audition.load('a', voice()));
    toItsEnd(audition.load('b', newSheet()));
    expect(audition.state('a')!.gainDb - audition.state('b')!.gainDb).toBeGreaterThan(3);
    heard(audition, 60);
    const a = heard(audition, 60);
    audition.choose('b');
    const between = heard(audition, 8);
    const b = heard(audition, 60);
    expect(rms(a) / rms(b)).toBeCloseTo(1, 1);
    const steps = (x: number[]) => Math.max(...x.slice(1).map((v, k) => Math.abs(v - x[k])));
    expect(steps([a[a.length - 1], ...between, b[0]])).toBeLessThan(
      1.5 * Math.max(steps(a), steps(b)),
    );
  });

  const turned = (sheet: Sheet, at: number): Sheet => ({
    ...sheet,
    controls: sheet.controls.map((c) => ({ ...c, at })),
  });

  test.each([
    ['transconductors', voice()],
    ['a transistor ladder', voice(transistorLadder)],
    ['op-amps', newSheet()],
  ])('goes back to any place and plays on as it did: %s', (_, sheet) => {
    const audition = new Audition(RATE, still0);
    const notes = { notes: [0, 7, 12], beatsPerMinute: 600, opens: 0.2, follows: true };
    toItsEnd(audition.play(still({ ...notes, sound: 'pluck' })));
    toItsEnd(audition.load('a', sheet));
    toItsEnd(audition.load('b', voice()));
    heard(audition, 30);
    // A knob is on its way, a key goes down, one circuit gives way to the other.
    audition.take('a', turned(sheet, 0.4))!();
    heard(audition, 2);
    audition.score.press(5);
    audition.choose('b');
    heard(audition, 3);
    const back = audition.mark();
    const first = heard(audition, 40);
    back();
    const again = heard(audition, 40);
    const off = rms(first.map((v, k) => v - again[k])) / rms(first);
    expect(off).toBeLessThan(1e-5);
    // Once more, and another setting from there on.
    back();
    audition.take('b', turned(voice(), 0.9))!();
    const other = heard(audition, 40);
    expect(rms(first.map((v, k) => v - other[k])) / rms(first)).toBeGreaterThan(0.01);
    expect(Math.abs(other[0] - first[0])).toBeLessThan(0.02);
  });

  test('goes on with what was heard when a circuit cannot be solved', () => {
    const audition = new Audition(RATE, still0);
    toItsEnd(audition.play(still()));
    toItsEnd(audition.load('a', voice()));
    const broken = structuredClone(voice());
    broken.ways[0].stages[0].drawing = { symbols: [], wires: [] };
    expect(() => toItsEnd(audition.load('a', broken))).toThrow();
    expect(rms(heard(audition, 40))).toBeGreaterThan(0.01);
  });
});
