import fc from 'fast-check';
import katex from 'katex';
import { acResponse } from '@/core/analysis/ac/ac';
import { makeCircuit } from '@/core/circuit/schema';
import { pinsOf } from './drawing';
import { TOPOLOGIES } from './index';
import { instantiate, netsOfTopology, valuedParts } from './instantiate';
import type { StageFigures, Topology, Values } from './topology';

/** The closed form a stage promises: gain times the standard first- or second-order function. */
function standardForm(
  { f0Hz, q, gain }: StageFigures,
  kind: Topology['kind'],
  hz: number,
): [number, number] {
  const x = hz / f0Hz;
  const [dr, di] = q === undefined ? [1, x] : [1 - x * x, x / q];
  const n = kind === 'low-pass' ? [1, 0] : q === undefined ? [0, x] : [-x * x, 0];
  const d = dr * dr + di * di;
  return [(gain * (n[0] * dr + n[1] * di)) / d, (gain * (n[1] * dr - n[0] * di)) / d];
}

function solve(topology: Topology, values: Values, frequenciesHz: number[]) {
  const parts = instantiate(topology, {
    values,
    opAmpModel: 'ideal',
    partName: (id) => id,
    netName: (net) => net,
  });
  const source = { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 } as const;
  return acResponse(makeCircuit([source, ...parts]), { frequenciesHz, probes: ['out'] }).probes.out;
}

/** Every legal ask of a topology. */
function asks(topology: Topology) {
  const { q = [0.5, 0.5], gain } = topology.limits;
  return fc.record({
    f0Hz: fc.double({ min: -1, max: 5.3, noNaN: true }).map((x) => 10 ** x),
    q:
      topology.order === 2
        ? fc.double({ min: q[0], max: q[1], noNaN: true })
        : fc.constant(undefined),
    gain: fc.option(fc.double({ min: gain[0], max: gain[1], noNaN: true }), { nil: undefined }),
  });
}

/** Without a gain of their own some stages are tied to Q; those asks may be refused. */
const designable = (topology: Topology) =>
  asks(topology).filter(
    (ask) =>
      ask.gain !== undefined ||
      topology.gain !== 'settable' ||
      3 - 1 / ask.q! >= topology.limits.gain[0],
  );

describe.each(TOPOLOGIES.map((t) => [t.id, t] as const))('%s', (_, topology) => {
  test('is drawn soundly: every pin joins another, wires run straight, in and out and ground are there', () => {
    const nets = netsOfTopology(topology);
    expect(nets.faults).toEqual([]);
    const points = topology.drawing.symbols.flatMap((s) => pinsOf(s).map((p) => p.at.join()));
    expect(points.length).toBeGreaterThan(4);
    expect(nets.parts.filter((p) => p.kind === 'op-amp')).toHaveLength(topology.opAmps);
  });

  test('designed values, solved by the engine, give the asked response within 1e-6', () => {
    fc.assert(
      fc.property(designable(topology), (ask) => {
        const values = topology.design(ask);
        const want = { ...ask, gain: ask.gain ?? topology.figures(values).gain };
        const frequencies = [0.01, 0.3, 0.9, 1, 1.1, 3, 50].map((x) => x * ask.f0Hz);
        const got = solve(topology, values, frequencies);
        frequencies.forEach((hz, k) => {
          const [re, im] = standardForm(want, topology.kind, hz);
          expect(Math.hypot(got.re[k] - re, got.im[k] - im) / Math.hypot(re, im)).toBeLessThan(
            1e-6,
          );
        });
      }),
      { numRuns: 60 },
    );
  });

  test('values -> figures -> values comes back', () => {
    fc.assert(
      fc.property(designable(topology), (ask) => {
        const values = topology.design(ask);
        const figures = topology.figures(values);
        expect(figures.f0Hz / ask.f0Hz).toBeCloseTo(1, 8);
        if (ask.q !== undefined) expect(figures.q! / ask.q).toBeCloseTo(1, 7);
        if (ask.gain !== undefined) expect(figures.gain / ask.gain).toBeCloseTo(1, 9);
        const again = topology.design({
          ...ask,
          gain: ask.gain === undefined ? undefined : figures.gain,
        });
        for (const { id } of valuedParts(topology)) {
          expect(values[id]).toBeGreaterThan(0);
          expect(again[id] / values[id]).toBeCloseTo(1, 6);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('every part and figure is explained, and the formulas typeset', () => {
    const values = topology.design({ f0Hz: 1000, q: topology.order === 2 ? 0.9 : undefined });
    const explained = topology.explain(values);
    for (const { id } of valuedParts(topology)) expect(explained.map((e) => e.of)).toContain(id);
    expect(explained.map((e) => e.of)).toEqual(
      expect.arrayContaining(topology.order === 2 ? ['f0', 'Q'] : ['f0']),
    );
    for (const e of explained) {
      for (const tex of [e.formula, e.numbers]) {
        expect(katex.renderToString(tex, { throwOnError: true, strict: 'ignore' })).not.toContain(
          'NaN',
        );
      }
      expect(e.text).toMatch(/[.;]$/);
    }
    for (const words of [topology.about, topology.tuning, topology.avoid])
      expect(words.length).toBeGreaterThan(20);
  });

  test('illegal asks are refused in words', () => {
    expect(() => topology.design({ f0Hz: -1, q: 1 })).toThrow(/more than 0 Hz/);
    expect(() =>
      topology.design({
        f0Hz: 1000,
        q: 1,
        gain: topology.limits.gain[1] * (topology.gain === 'inverting' ? -1 : 2),
      }),
    ).toThrow(/gain/);
    if (topology.limits.q)
      expect(() => topology.design({ f0Hz: 1000, q: 1000 })).toThrow(/Q = 1000 is outside/);
  });
});
