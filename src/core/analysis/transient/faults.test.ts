import { makeCircuit, readCircuit, type Part } from '@/core/circuit/schema';
import { c, r } from '@/core/circuit/testing/parts';
import { faultCircuit } from '../testing/faults';
import { DIAGONAL, DIFFERENCE, EARLIER, NODES, STAGES } from './tableau';
import { transient } from './transient';

/** Times at which a trace rises through a level. */
function rises(times: Float64Array, volts: Float64Array, level: number): number[] {
  const found: number[] = [];
  for (let k = 1; k < volts.length; k++)
    if (volts[k - 1] < level && volts[k] >= level)
      found.push(
        times[k - 1] +
          ((times[k] - times[k - 1]) * (level - volts[k - 1])) / (volts[k] - volts[k - 1]),
      );
  return found;
}

test('the method is of order 4, and forgets what is faster than its steps', () => {
  const a = EARLIER.map((row, i) =>
    Array.from({ length: STAGES }, (_, j) => row[j] ?? (i === j && i > 0 ? DIAGONAL : 0)),
  );
  const b = a[STAGES - 1];
  const [sum, dot] = [
    (x: number[]) => x.reduce((s, v) => s + v, 0),
    (x: number[], y: number[]) => x.reduce((s, v, i) => s + v * y[i], 0),
  ];
  const through = (y: readonly number[]) => a.map((row) => dot(row, [...y]));
  const c1 = [...NODES];
  const conditions: [number, number][] = [
    [sum(b), 1],
    [dot(b, c1), 1 / 2],
    [
      dot(
        b,
        c1.map((x) => x * x),
      ),
      1 / 3,
    ],
    [dot(b, through(c1)), 1 / 6],
    [
      dot(
        b,
        c1.map((x) => x ** 3),
      ),
      1 / 4,
    ],
    [
      dot(
        b.map((x, i) => x * c1[i]),
        through(c1),
      ),
      1 / 8,
    ],
    [dot(b, through(c1.map((x) => x * x))), 1 / 12],
    [dot(b, through(through(c1))), 1 / 24],
  ];
  for (const [got, wanted] of conditions) expect(got).toBeCloseTo(wanted, 13);
  a.forEach((row, i) => expect(sum(row)).toBeCloseTo(NODES[i], 13));
  expect(sum([...DIFFERENCE])).toBeCloseTo(0, 13);
  // With charges that are held (an infinitely fast mode) the rates of a step do not depend on those before.
  const rates = [1];
  for (let i = 1; i < STAGES; i++)
    rates.push(-EARLIER[i].reduce((s, w, j) => s + w * rates[j], 0) / DIAGONAL);
  expect(rates[STAGES - 1]).toBeCloseTo(0, 12);
});

describe('runs that were got wrong', () => {
  test.each([undefined, 1e-6, 7e-6])(
    'an astable of two transistors snaps and does not ring (step %s)',
    (stepSeconds) => {
      const { timesSeconds, probes } = transient(faultCircuit('transient-astable-fixed-step'), {
        untilSeconds: 5e-3,
        stepSeconds,
        probes: ['c1'],
      });
      expect(Math.min(...probes.c1)).toBeGreaterThan(-0.1);
      expect(Math.max(...probes.c1)).toBeLessThan(9.001);
      const periods = rises(timesSeconds, probes.c1, 4.5).map((t, k, all) => t - (all[k - 1] ?? 0));
      for (const period of periods.slice(2)) expect(period).toBeCloseTo(0.69e-3, 5);
    },
  );

  test.each([
    ['transient-lc-q50', undefined],
    ['transient-lc-q1000', undefined],
    ['transient-lc-q1000', 40],
  ])('%s rings a thousand cycles in time', (name, perCycle) => {
    const circuit = faultCircuit(name);
    const ohms = circuit.parts.flatMap((p) => (p.kind === 'resistor' ? [p.ohms] : []))[0];
    const [decay, natural] = [ohms / 0.02, 1e8];
    const w = Math.sqrt(natural - decay * decay);
    const cycle = (2 * Math.PI) / w;
    const { timesSeconds, probes } = transient(circuit, {
      untilSeconds: 1000 * cycle,
      stepSeconds: perCycle && cycle / perCycle,
      probes: ['out'],
    });
    timesSeconds.forEach((t, k) => {
      const envelope = Math.exp(-decay * t);
      const true_ = 1 - envelope * (Math.cos(w * t) + (decay / w) * Math.sin(w * t));
      // A phase that is off by 1e-5 of a cycle each cycle.
      const allowed = 2 * Math.PI * 1e-5 * (t / cycle) * envelope + 2e-4;
      expect(Math.abs(probes.out[k] - true_)).toBeLessThan(allowed);
    });
  });

  test('samples at the rate of the grid are straight lines, not jumps', () => {
    const circuit = faultCircuit('transient-samples-lc');
    const source = circuit.parts.find((p) => p.kind === 'voltage-source')!;
    const wave = source.waveform!;
    if (wave.shape !== 'samples') throw new Error('not sampled');
    const untilSeconds = wave.sampleSeconds * 400;
    const run = (divide: number, tolerance: number) =>
      transient(circuit, {
        untilSeconds,
        stepSeconds: wave.sampleSeconds / divide,
        probes: ['out'],
        tolerance,
      }).probes.out;
    const [coarse, fine] = [run(1, 1e-4), run(16, 1e-8)];
    const peak = coarse.reduce((a, v) => Math.max(a, Math.abs(v)), 0);
    coarse.forEach((v, k) => expect(Math.abs(v - fine[16 * k])).toBeLessThan(1e-3 * peak));
  });

  test('a source that changes too often is refused at once', () => {
    const circuit = faultCircuit('transient-terahertz-square');
    for (const stepSeconds of [undefined, 1e-5])
      expect(() =>
        transient(circuit, { untilSeconds: 2e-3, stepSeconds, probes: ['out'] }),
      ).toThrow(/Source “V1” changes 8\.00e\+9 times in 2.ms/);
  });

  test('the end of a run is reached, whatever the step', () => {
    const circuit = faultCircuit('transient-lc-q50');
    const { timesSeconds } = transient(circuit, {
      untilSeconds: 1,
      stepSeconds: 0.3,
      probes: ['out'],
    });
    expect([...timesSeconds].map((t) => t.toFixed(6))).toEqual([
      '0.000000',
      '0.300000',
      '0.600000',
      '0.900000',
      '1.000000',
    ]);
  });

  test.each<[string, object, (t: number) => number]>([
    [
      'a square',
      { shape: 'square', lowVolts: -1, highVolts: 1, frequencyHz: 1300 },
      (t) => ((t * 1300) % 1 < 0.5 ? 1 : -1),
    ],
    [
      'a saw',
      { shape: 'saw', amplitudeVolts: 1, frequencyHz: 1300 },
      (t) => (((t * 1300 + 0.5) % 1) - 0.5) * 2,
    ],
    [
      'a triangle',
      { shape: 'triangle', amplitudeVolts: 1, frequencyHz: 1300 },
      (t) => (2 / Math.PI) * Math.asin(Math.sin(2 * Math.PI * 1300 * t)),
    ],
  ])(
    '%s is followed to the jump, by a capacitor across the source as well',
    (_, waveform, wanted) => {
      const circuit = readCircuit(
        makeCircuit([
          { id: 'V', kind: 'voltage-source', plus: 'in', minus: '0', waveform } as Part,
          c('CX', 'in', '0', 1e-6),
          r('R', 'in', 'out', 1000),
          c('C', 'out', '0', 1e-8),
        ]),
      );
      const tau = 1e-5;
      const { timesSeconds, probes } = transient(circuit, {
        untilSeconds: 5e-3,
        stepSeconds: 1e-5,
        probes: ['in', 'out'],
      });
      let [volts, last] = [probes.out[0], 0];
      timesSeconds.forEach((t, k) => {
        // The exponential of a fine staircase, exact for squares to the width of its steps.
        for (const fine = 2e-8; last < t - fine / 2; last += fine)
          volts =
            wanted(last + fine / 2) + (volts - wanted(last + fine / 2)) * Math.exp(-fine / tau);
        expect(Math.abs(probes.out[k] - volts)).toBeLessThan(4e-3);
        expect(Math.abs(probes.in[k] - wanted(t - 1e-12)) < 1e-3 || k === 0).toBe(true);
      });
    },
  );
});
