import { THERMAL_VOLTS } from '@/core/constants';
import { cellOf } from '@/core/cells';
import { makeCircuit, type Circuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { harmonics } from '@/core/analysis/harmonics/harmonics';
import { keyboardVoice } from '@/core/demo/voices';
import { pathCircuit } from '@/core/sheet/path-circuit';
import { voiceSheet } from '@/core/sheet/voice';
import { turnedTo } from '@/core/sheet/knobs/travel';
import { songOf } from '@/core/synth/song';
import { CYCLE, partialsOf, SteadyRun } from '@/core/synth/steady';
import { driveLens } from './drive';
import { harmonicsLens, waveHarmonic } from './harmonics';
import { scopeLens } from './scope';

const AT = '2026-11-27T12:00:00.000Z';
const VOICE = keyboardVoice(AT);
const [CUT_OFF, RESONANCE] = VOICE.controls;

/** A differential pair into a resistor: v(out) = I R tanh(v / 2 VT). */
const PAIR: Circuit = makeCircuit([
  UNIT_SOURCE,
  { id: 'G1', kind: 'ota', inPlus: 'in', inMinus: '0', out: 'out', biasAmps: 1e-3 },
  { id: 'R1', kind: 'resistor', a: 'out', b: '0', ohms: 1e3 },
]);

describe('a wave that comes round', () => {
  test('has the harmonics of the pair’s own law', () => {
    const volts = THERMAL_VOLTS;
    const { volts: cycle, repeats } = new SteadyRun(PAIR, UNIT_SOURCE.id, 'out', 1000).cycle({
      wave: 'sine',
      volts,
    });
    expect(repeats).toBe(true);
    const { amplitude } = partialsOf(cycle, 5);
    // b(n) of tanh(sin x / 2): by its own sum over a cycle.
    for (const n of [1, 3, 5]) {
      let b = 0;
      const N = 4096;
      for (let k = 0; k < N; k++) {
        const x = (2 * Math.PI * k) / N;
        b += (2 / N) * Math.tanh(Math.sin(x) / 2) * Math.sin(n * x);
      }
      expect(amplitude[n - 1] / Math.abs(b)).toBeCloseTo(1, 3);
    }
  });

  test.each(['saw', 'square'] as const)(
    '%s: the series that is drawn before the filter',
    (wave) => {
      const plain = makeCircuit([
        UNIT_SOURCE,
        { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 1e3 },
        { id: 'R2', kind: 'resistor', a: 'out', b: '0', ohms: 1e3 },
      ]);
      const run = new SteadyRun(plain, UNIT_SOURCE.id, 'out', 50);
      const { amplitude, phase } = partialsOf(run.cycle({ wave, volts: 2 }).volts, 9);
      amplitude.forEach((a, k) => {
        expect(a).toBeCloseTo(waveHarmonic(wave, k + 1), 2);
        if (a > 0.1) expect(phase[k]).toBeCloseTo(0, 1);
      });
      expect(run.cycle({ wave, volts: 2 }).volts).toHaveLength(CYCLE + 1);
    },
  );

  test('nets beside it are of the very same cycle, even where it sings by itself', () => {
    const singing = pathCircuit(turnedTo(VOICE, RESONANCE.id, 1), 0, 'built');
    const run = new SteadyRun(singing, UNIT_SOURCE.id, 'out', 300, ['0', 'out', 'in', 'out']);
    const { volts, also, repeats } = run.cycle({ wave: 'square', volts: 0.01 });
    expect(repeats).toBe(false);
    expect(also[0].every((v) => v === 0)).toBe(true);
    expect(also[1]).toEqual(volts);
    expect(also[3]).toEqual(volts);
    // The source holds its net but for what its own resistance takes.
    expect(also[2][CYCLE / 4]).toBeCloseTo(0.01, 3);
    expect(also[2][(3 * CYCLE) / 4]).toBeCloseTo(-0.01, 3);
  });

  test('is what the engine’s own steady state is', () => {
    const circuit = pathCircuit(VOICE, 0, 'built');
    const { thd, volts } = harmonics(circuit, { probe: 'out', frequencyHz: 300, amplitude: 10 });
    const run = new SteadyRun(circuit, UNIT_SOURCE.id, 'out', 300);
    const own = partialsOf(run.cycle({ wave: 'sine', volts: 10 }).volts, 9);
    expect(own.amplitude[0] / volts[0]).toBeCloseTo(1, 3);
    expect(own.thd / thd).toBeCloseTo(1, 1);
  });
});

test('what sings does so near where its poles are, and grows until the devices bend', () => {
  const at = (place: number) =>
    songOf(pathCircuit(turnedTo(VOICE, RESONANCE.id, place), 0, 'built'), 'out', UNIT_SOURCE.id);
  expect(at(0.5)).toBeUndefined();
  const [barely, fully] = [at(0.91)!, at(1)!];
  expect(barely.hz / fully.hz).toBeCloseTo(1, 0);
  expect(fully.peakVolts).toBeGreaterThan(1.5 * barely.peakVolts);
  // Four poles leave little of what the bending adds.
  expect(fully.partials[2] / fully.partials[0]).toBeLessThan(0.05);
});

test('distortion grows with the square of the level, sinks with what is fed back, and ends at the rails of the currents', async () => {
  const { levels, courses, onePart, song, hz } = await driveLens(VOICE, { hz: null });
  const [here, without] = courses;
  expect(courses.map((c) => c.at)).toEqual([0.5, 0, expect.closeTo(0.797, 2)]);
  // tanh bends by the cube: ten times the level, a hundred times the third harmonic’s part.
  expect(without.thd[7] / without.thd[3]).toBeCloseTo(100, -1);
  expect(without.thd[6]).toBeGreaterThan(here.thd[6]);
  expect(without.volts[12] / without.volts[11]).toBeLessThan(1.05);
  expect(onePart).toBeGreaterThan(levels[8]);
  expect(onePart).toBeLessThan(levels[9]);
  expect(song!.hz).toBeGreaterThan(700);
  expect(hz).toBeGreaterThan(200);
});

test('any nets stand on one scale; those that are gone are left out', async () => {
  const { nets, layers, seconds, repeats } = await scopeLens(VOICE, {
    wave: 'saw',
    hz: 110,
    volts: 1,
    nets: ['s1.nowhere'],
  });
  expect(repeats).toBe(true);
  expect(nets.map((n) => n.name)).toEqual(expect.arrayContaining(['input', 'output', 'G1 out']));
  const built = layers.layers.find((l) => l.id === 'built')!.value;
  expect(Object.keys(built)).toEqual(['in', 'out']);
  expect(seconds).toHaveLength(built.in.length);
  expect(Math.max(...built.in)).toBeCloseTo(1, 1);
});

test('partials are solved anew where the control stands, bent ones over time', async () => {
  const ask = (at: number) =>
    harmonicsLens(VOICE, {
      wave: 'saw',
      fundamentalHz: 110,
      shift: 1,
      control: { id: CUT_OFF.id, at },
    });
  const [low, high] = [await ask(0.3), await ask(0.9)];
  const built = (p: typeof low) => p.layers.layers.find((l) => l.id === 'built')!.value.amplitude;
  expect(high.cutOffHz! / low.cutOffHz!).toBeCloseTo(2 ** (0.6 * Math.log2(400)), -1);
  expect(built(low)[9] / built(low)[0]).toBeLessThan(built(high)[9] / built(high)[0] / 10);
  const { gentle, steep } = low.slopes!;
  const w = (10 * 110) / low.cutOffHz!;
  expect(gentle.amplitude[9]).toBeCloseTo(low.input[9] / Math.hypot(1, w), 12);
  expect(steep.amplitude[9]).toBeLessThan(gentle.amplitude[9] / 10);
});

test('a passive cell does not bend at all', async () => {
  const cell = cellOf('rc-knob')!;
  const sheet = voiceSheet({
    id: 'x',
    title: 'Plain',
    at: AT,
    cell,
    ...cell.usual,
    source: { name: 'Oscillator', ohms: 0 },
    load: { name: 'Amplifier', ohms: null },
  });
  const { onePart, whyNoSong } = await driveLens(sheet, { hz: 200 });
  expect(onePart).toBeNull();
  expect(whyNoSong).toMatch(/does not sing/);
});
