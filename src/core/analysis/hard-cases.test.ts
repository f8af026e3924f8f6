import fc from 'fast-check';
import { ReedError } from '@/core/errors';
import { makeCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { AcAnalysis, acResponse } from './ac/ac';
import { operatingPoint } from './dc/operating-point';
import { solveDense } from './testing/dense';
import { polesAndZeros } from './poles/poles';
import { readingSensitivity } from '@/core/response/reading-sensitivity';
import { sensitivity } from './sensitivity/sensitivity';
import { c, l, r } from '@/core/circuit/testing/parts';
import { transient } from './transient/transient';
import { impedanceAt, jointView } from './two-port/two-port';

const v = (id: string, plus: string, dcVolts = 0, acVolts = 0): Part => ({
  id,
  kind: 'voltage-source',
  plus,
  minus: '0',
  dcVolts,
  acVolts,
});
const step = (highVolts: number, delaySeconds = 0): Part => ({
  id: 'V1',
  kind: 'voltage-source',
  plus: 'in',
  minus: '0',
  waveform: { shape: 'step', lowVolts: 0, highVolts, delaySeconds, riseSeconds: 0 },
});
const q = (
  id: string,
  polarity: 'npn' | 'pnp',
  collector: string,
  base: string,
  emitter: string,
): Part => ({
  id,
  kind: 'transistor',
  collector,
  base,
  emitter,
  model: {
    polarity,
    saturationAmps: 1e-14,
    betaForward: 150,
    betaReverse: 2,
    baseEmitterFarads: 0,
    baseCollectorFarads: 0,
    transitSeconds: 0,
  },
});
const log = (min: number, max: number) =>
  fc.double({ min: Math.log(min), max: Math.log(max), noNaN: true }).map(Math.exp);

/** An amplifier of six transistors with feedback for a gain of eleven. */
const amplifier = (scaled?: string, factor = 1): Circuit =>
  makeCircuit(
    [
      v('VP', 'p', 15),
      v('VN', 'n', -15),
      v('V1', 'in', 0.05, 1),
      q('Q1', 'npn', 'c1', 'in', 'e'),
      q('Q2', 'npn', 'p', 'fb', 'e'),
      q('Q3', 'npn', 'e', 'b3', 'e3'),
      r('RB1', '0', 'b3', 33_000),
      r('RB2', 'b3', 'n', 6_800),
      r('RE3', 'e3', 'n', 1_500),
      r('RC1', 'p', 'c1', 680),
      q('Q4', 'pnp', 'drive', 'c1', 'p'),
      r('RD', 'drive', 'n', 6_800),
      q('Q5', 'npn', 'p', 'drive', 'out'),
      q('Q6', 'pnp', 'n', 'drive', 'out'),
      r('RF1', 'out', 'fb', 10_000),
      r('RF2', 'fb', '0', 1_000),
      r('RL', 'out', '0', 600),
    ].map((p) => (p.id === scaled && p.kind === 'resistor' ? { ...p, ohms: p.ohms * factor } : p)),
  );

describe('operating points', () => {
  test('six transistors settle, and every net obeys Kirchhoff', () => {
    const { nodes, devices, iterations } = operatingPoint(amplifier());
    expect(nodes.out).toBeGreaterThan(0);
    expect(nodes.out).toBeLessThan(1);
    expect(iterations).toBeLessThan(200);
    const [, base] = devices.Q1.map(Math.abs).sort((a, b) => b - a);
    expect(base).toBeGreaterThan(0);
    const into = (15 - nodes.c1) / 680;
    expect(nodes.c1).toBeLessThan(15);
    expect(into).toBeGreaterThan(1e-4);
    const fb = (nodes.out - nodes.fb) / 10_000 - nodes.fb / 1_000;
    expect(Math.abs(fb)).toBeLessThan(1e-4); // what is left is the base current of Q2
    expect(fb).toBeGreaterThan(0);
  });

  test('two states and one unstable point: the search ends on a solution of the equations', () => {
    const latch = makeCircuit([
      v('VP', 'p', 5),
      r('RA', 'p', 'a', 1_000),
      r('RB', 'p', 'b', 1_000),
      r('R1', 'a', 'x', 10_000),
      r('R2', 'b', 'y', 10_000),
      q('Q1', 'npn', 'a', 'y', '0'),
      q('Q2', 'npn', 'b', 'x', '0'),
    ]);
    const { nodes, devices } = operatingPoint(latch);
    const leaving = (5 - nodes.a) / 1_000 - (nodes.a - nodes.x) / 10_000;
    expect(leaving).toBeCloseTo(devices.Q1[0], 9);
    expect(
      polesAndZeros({ ...latch, parts: [...latch.parts, c('CA', 'a', '0', 1e-9)] }, 'b').verdict,
    ).toMatch(/stable|unstable/);
  });
});

describe('wiring at the edge', () => {
  test('a capacitor across a voltage source changes nothing, at rest, in frequency and in time', () => {
    const parts = [r('R1', 'in', 'out', 1_000), c('C1', 'out', '0', 1e-7)];
    const bare = makeCircuit([step(1), ...parts]);
    const loaded = makeCircuit([step(1), c('CX', 'in', '0', 1e-6), ...parts]);
    const run = (circuit: Circuit) =>
      transient(circuit, { untilSeconds: 1e-3, stepSeconds: 1e-5, probes: ['out'] }).probes.out;
    run(bare).forEach((volts, k) => expect(run(loaded)[k]).toBeCloseTo(volts, 9));
    expect(operatingPoint(loaded).nodes.out).toBe(0);
  });

  test('a coil fed by a current source carries that current', () => {
    const circuit = makeCircuit([
      { id: 'I1', kind: 'current-source', from: '0', to: 'a', dcAmps: 0.01, acAmps: 1 },
      l('L1', 'a', 'out', 0.1),
      r('R1', 'out', '0', 50),
    ]);
    expect(operatingPoint(circuit).nodes.out).toBeCloseTo(0.5, 12);
    const { probes } = acResponse(circuit, { frequenciesHz: [1000], probes: ['out', 'a'] });
    expect(probes.out.re[0]).toBeCloseTo(50, 10);
    expect(probes.a.im[0]).toBeCloseTo(2 * Math.PI * 1000 * 0.1, 8);
  });

  test('an oscillator grows from a kick at the rate its poles say', () => {
    const gain = 3.05;
    const wien = makeCircuit([
      step(1e-3, 1e-4),
      r('RK', 'in', 'p', 1e7),
      r('R1', 'p', '0', 1e4),
      c('C1', 'p', '0', 1e-8),
      r('R2', 'p', 'm', 1e4),
      c('C2', 'm', 'out', 1e-8),
      {
        id: 'E1',
        kind: 'voltage-amplifier',
        plus: 'out',
        minus: '0',
        inPlus: 'p',
        inMinus: '0',
        gain,
      },
    ]);
    const { poles, verdict } = polesAndZeros(wien, 'out');
    expect(verdict).toBe('unstable');
    const growth = Math.max(...poles.map((p) => p.re));
    const { probes } = transient(wien, { untilSeconds: 0.03, stepSeconds: 2e-6, probes: ['out'] });
    const peak = (from: number, to: number) =>
      probes.out.slice(from, to).reduce((a, b) => Math.max(a, Math.abs(b)), 0);
    const measured = Math.log(peak(13_000, 14_500) / peak(5_000, 6_500)) / (8_000 * 2e-6);
    expect(measured / growth).toBeCloseTo(1, 1);
  });

  test('random networks of every linear kind: no further from the dense solution than rounding is', () => {
    const net = fc
      .integer({ min: 0, max: 6 })
      .map((k) => (k === 0 ? '0' : k === 1 ? 'in' : `n${k}`));
    const part = fc.oneof(
      fc.tuple(fc.constant('R'), net, net, net, log(1, 1e8)),
      fc.tuple(fc.constant('C'), net, net, net, log(1e-12, 1e-4)),
      fc.tuple(fc.constant('L'), net, net, net, log(1e-6, 10)),
      fc.tuple(fc.constant('U'), net, net, net, fc.constant(0)),
    );
    let solved = 0;
    fc.assert(
      fc.property(fc.array(part, { minLength: 6, maxLength: 16 }), log(1, 1e6), (drawn, hz) => {
        const parts = drawn.flatMap(([kind, a, b, out, value], k): Part[] => {
          if (a === b) return [];
          if (kind === 'R') return [r(`R${k}`, a, b, value)];
          if (kind === 'C') return [c(`C${k}`, a, b, value)];
          if (kind === 'L') return [l(`L${k}`, a, b, value)];
          const model = { gainBandwidthHz: 3e6, dcGainDb: 100 };
          return out === '0' || out === 'in'
            ? []
            : [{ id: `U${k}`, kind: 'op-amp', inPlus: a, inMinus: b, out, model }];
        });
        let analysis: AcAnalysis;
        let found;
        try {
          analysis = new AcAnalysis(makeCircuit([v('V1', 'in', 0, 1), ...parts]));
          const probes = [...analysis.system.netIndex.keys()];
          found = analysis.solve({ frequenciesHz: [hz], probes }).probes;
        } catch (error) {
          expect(error).toBeInstanceOf(ReedError);
          return;
        }
        const { size: n, rows, columns, g, c: capacitive } = analysis.matrix;
        const dense = (wobble: number) => {
          const [re, im] = [new Float64Array(n * n), new Float64Array(n * n)];
          rows.forEach((row, slot) => {
            const off = 1 + wobble * ((slot % 3) - 1);
            re[row * n + columns[slot]] = g[slot] * off;
            im[row * n + columns[slot]] = capacitive[slot] * 2 * Math.PI * hz * off;
          });
          const x = solveDense(n, re, im, analysis.rhs.re, analysis.rhs.im);
          return 'singularColumn' in x ? undefined : x;
        };
        const [exact, moved] = [dense(0), dense(1e-14)];
        if (!exact || !moved) return;
        solved++;
        for (const [name, unknown] of analysis.system.netIndex) {
          const off = Math.hypot(
            found[name].re[0] - exact.re[unknown],
            found[name].im[0] - exact.im[unknown],
          );
          const rounding = Math.hypot(
            moved.re[unknown] - exact.re[unknown],
            moved.im[unknown] - exact.im[unknown],
          );
          const size = Math.hypot(exact.re[unknown], exact.im[unknown]);
          expect(off).toBeLessThanOrEqual(100 * rounding + 1e-9 * size + 1e-12);
        }
      }),
      { numRuns: 400, seed: 7 },
    );
    expect(solved).toBeGreaterThan(100);
  });
});

describe('sensitivity where the operating point moves too', () => {
  test.each(['RC1', 'RE3', 'RB2', 'RD', 'RF1'])(
    '%s of the amplifier equals a central difference',
    (id) => {
      const hz = 1000;
      const level = (factor: number) => {
        const { re, im } = acResponse(amplifier(id, factor), {
          frequenciesHz: [hz],
          probes: ['out'],
        }).probes.out;
        return 20 * Math.log10(Math.hypot(re[0], im[0]));
      };
      const central = (h: number) => (level(Math.exp(h)) - level(Math.exp(-h))) / (2 * h);
      const difference = (4 * central(5e-4) - central(1e-3)) / 3;
      const found = sensitivity(amplifier(), { probe: 'out', frequenciesHz: [hz] }).find(
        (s) => s.part === id,
      )!;
      expect(Math.abs(found.levelDb[0] - difference)).toBeLessThan(
        1e-5 * Math.max(1, Math.abs(difference)),
      );
    },
  );

  test('the frequency of a peak: minus one half for L and for C of a resonance', () => {
    const circuit = makeCircuit([
      v('V1', 'in', 0, 1),
      r('R1', 'in', 'x', 10),
      l('L1', 'x', 'out', 1e-2),
      c('C1', 'out', '0', 1e-6),
    ]);
    const list = readingSensitivity(
      circuit,
      'out',
      { measure: 'peak-frequency' },
      { fromHz: 10, toHz: 1e5 },
    );
    const value = (id: string) => list.find((s) => s.part === id)!.value;
    const [L, C, R] = [1e-2, 1e-6, 10];
    // w^2 = 1/LC - R^2/2L^2
    const w = Math.sqrt(1 / (L * C) - R ** 2 / (2 * L ** 2));
    const hz = (x: number) => x / (4 * Math.PI * w);
    expect(value('L1')).toBeCloseTo(hz(-1 / (L * C) + (R / L) ** 2), 3);
    expect(value('C1')).toBeCloseTo(hz(-1 / (L * C)), 3);
    expect(value('R1')).toBeCloseTo(hz(-((R / L) ** 2)), 3);
  });
});

test('a joint: two equal resistances lose 6.02 dB, and a capacitor loads more as frequency rises', () => {
  const before = makeCircuit([v('V1', 'in', 0, 1), r('RS', 'in', 'j', 1e4)]);
  const after = makeCircuit([r('RL', 'j', '0', 1e4), c('CL', 'j', '0', 1e-9)]);
  const { lossDb, source } = jointView(before, after, 'j', [1, 1e3, 1e5]);
  expect(source.re[1]).toBeCloseTo(1e4, 9);
  expect(lossDb[0]).toBeCloseTo(20 * Math.log10(0.5), 5);
  const turn = 2 * Math.PI * 1e5 * 5e3 * 1e-9;
  expect(lossDb[2]).toBeCloseTo(20 * Math.log10(0.5 / Math.hypot(1, turn)), 9);
  expect(impedanceAt(after, 'j', [1e5]).im[0]).toBeLessThan(0);
});

test('a long analysis stops at the first look at its signal after being asked', async () => {
  const circuit = makeCircuit([step(1), r('R1', 'in', 'out', 1e3), c('C1', 'out', '0', 1e-7)]);
  const controller = new AbortController();
  // The run looks at its signal between slices of work; one aborted from outside is seen at once.
  let looks = 0;
  const signal = new Proxy(controller.signal, {
    get: (target, key) => {
      if (key === 'aborted' && ++looks === 20) controller.abort();
      return Reflect.get(target, key) as unknown;
    },
  });
  expect(() =>
    transient(circuit, { untilSeconds: 1, stepSeconds: 1e-6, probes: ['out'], signal }),
  ).toThrow(/Stopped/);
  await Promise.resolve();
  expect(looks).toBe(20);
});
