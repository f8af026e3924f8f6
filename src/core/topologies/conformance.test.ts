import fc from 'fast-check';
import katex from 'katex';
import { acResponse } from '@/core/analysis/ac/ac';
import { polesAndZeros } from '@/core/analysis/poles/poles';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { makeCircuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { pinsOf } from '@/core/drawing/drawing';
import { TOPOLOGIES } from './index';
import { instantiate, withValues, netsOfTopology, valuedParts } from './instantiate';
import { designable } from './testing/asks';
import { realValues } from '@/core/sheet/real-values';
import { DEFAULT_PARTS } from '@/core/sheet/make';
import { partKindOf } from '@/core/parts';
import { shownSides } from './testing/shown-equation';
import { texValue } from './tex-value';
import { isFlat, transferOf, type StageFigures, type Topology, type Values } from './topology';

/** Orders of one family share their code: the lowest and the highest get every run, the others a few. */
const runsOf = (topology: Topology) => (topology.order > 4 ? 3 : topology.order > 2 ? 8 : 20);

function circuitOf(topology: Topology, values: Values, opAmp: unknown) {
  const parts = instantiate(topology.drawing, {
    dataOf: withValues(values, opAmp),
    partName: (id) => id,
    netName: (net) => net,
  });
  return makeCircuit([UNIT_SOURCE, ...parts]);
}

const FET_INPUT = OP_AMPS.find((m) => m.name.startsWith('FET-input'))!.model;
/** So slow that three megahertz bear on nothing. */
const SLOW_HZ = 100;

function solve(topology: Topology, values: Values, frequenciesHz: number[]) {
  const circuit = circuitOf(topology, values, 'ideal');
  return acResponse(circuit, { frequenciesHz, probes: ['out'] }).probes.out;
}

/** The solved circuit must be what the figures promise, from far below to far above. */
function expectResponse(topology: Topology, values: Values, figures: StageFigures) {
  const frequencies = [0.02, 0.3, 0.9, 1, 1.1, 3, 40].map((x) => x * figures.f0Hz);
  const got = solve(topology, values, frequencies);
  const wrong = frequencies.filter((hz, k) => {
    const { re, im } = transferOf(topology, figures, hz);
    const off = Math.hypot(got.re[k] - re, got.im[k] - im);
    return !(off < 1e-6 * Math.hypot(re, im) + 1e-12 * Math.abs(figures.gain));
  });
  expect(wrong).toEqual([]);
}

describe.each(TOPOLOGIES.map((t) => [t.id, t] as const))('%s', (_, topology) => {
  const numRuns = runsOf(topology);

  test('is drawn soundly: every pin joins another, wires run straight, in and out are there', () => {
    const nets = netsOfTopology(topology);
    expect(nets.faults).toEqual([]);
    for (const { kind } of nets.parts) expect(partKindOf(kind).inDesigns).toBe(true);
    const points = topology.drawing.symbols.flatMap((s) => pinsOf(s).map((p) => p.at.join()));
    expect(points.length).toBeGreaterThan(4);
    expect(nets.parts.filter((p) => p.kind === 'op-amp')).toHaveLength(topology.opAmps);
  });

  test('designed values, solved by the engine, give the asked response within 1e-6', () => {
    fc.assert(
      fc.property(designable(topology), (ask) => {
        const values = topology.design(ask);
        expect(valuedParts(topology).filter(({ id }) => !(values[id] > 0))).toEqual([]);
        expectResponse(topology, values, { ...topology.figures(values), ...ask });
      }),
      { numRuns },
    );
  });

  if (topology.opAmps > 0)
    test('rests with real op-amps too: their inputs the right way round', () => {
      fc.assert(
        fc.property(designable(topology), (ask) => {
          const values = topology.design({ ...ask, f0Hz: Math.min(ask.f0Hz, SLOW_HZ) });
          expect(polesAndZeros(circuitOf(topology, values, FET_INPUT), 'out').verdict).toBe(
            'stable',
          );
        }),
        { numRuns: 2 },
      );
    });

  test('values -> figures -> values comes back', () => {
    fc.assert(
      fc.property(designable(topology), (ask) => {
        const values = topology.design(ask);
        const figures = topology.figures(values);
        if (!isFlat(topology)) expect(figures.f0Hz / ask.f0Hz).toBeCloseTo(1, 7);
        for (const name of ['q', 'gain', 'boost', 'depth', 'zeroHz'] as const)
          if (ask[name] !== undefined) expect(figures[name]! / ask[name]).toBeCloseTo(1, 7);
        for (const [name, want] of Object.entries(ask.own ?? {}))
          expect(figures.own![name] / want).toBeCloseTo(1, 7);
        // A lossless ladder's elements answer its poles steeply; its response was held above.
        if (topology.limits.poles) return;
        const again = topology.design({
          ...figures,
          f0Hz: ask.f0Hz,
          gain: ask.gain === undefined ? undefined : figures.gain,
        });
        const other = valuedParts(topology).filter(
          ({ id }) => !(Math.abs(again[id] / values[id] - 1) < 5e-5),
        );
        expect(other).toEqual([]);
      }),
      { numRuns },
    );
  });

  if (!topology.needsMatching) {
    test('the figures of parts that are a little off are what the engine finds', () => {
      const off = fc.array(fc.double({ min: 0.95, max: 1.05, noNaN: true }), {
        minLength: 40,
        maxLength: 40,
      });
      fc.assert(
        fc.property(designable(topology), off, (ask, factors) => {
          const exact = topology.design(ask);
          const values = Object.fromEntries(
            Object.entries(exact).map(([id, value], i) => [id, value * factors[i % 40]]),
          );
          const figures = topology.figures(values);
          // A stage close to oscillation may pass it with parts that far off.
          if (figures.q !== undefined && !(figures.q > 0 && figures.q < 200)) return;
          expectResponse(topology, values, figures);
        }),
        { numRuns },
      );
    });
  }

  test('every part and figure is explained, and the formulas come to the values', () => {
    fc.assert(
      fc.property(designable(topology), (ask) => {
        const values = topology.design(ask);
        const explained = topology.explain(values);
        const about = explained.map((e) => e.of);
        expect(about).toEqual(expect.arrayContaining(valuedParts(topology).map((p) => p.id)));
        if (!isFlat(topology)) expect(about).toContain('f0');
        if (topology.limits.q) expect(about).toContain('Q');
        for (const { formula, numbers } of explained)
          for (const tex of [formula, numbers])
            if (katex.renderToString(tex, { throwOnError: true, strict: 'ignore' }).includes('NaN'))
              throw new Error(`no number in ${tex}`);
        expect(explained.filter(({ text }) => !/[.;]$/.test(text))).toEqual([]);
        // The designed values are what the design's formulas give, every one.
        expect(explained.filter(({ off }) => off !== undefined)).toEqual([]);
        const untrue = explained.filter(
          ({ formula, source }) =>
            source &&
            !formula.includes('\\ge') &&
            !(Math.abs(texValue(source.formula, source.named) / source.value - 1) < 5e-5),
        );
        expect(untrue).toEqual([]);
      }),
      { numRuns: 2 },
    );
    const { about, outputs, tuning, sensitivity, avoid } = topology;
    for (const words of [about, outputs, tuning, sensitivity, avoid])
      expect(words.length).toBeGreaterThan(10);
  });

  test('every equation shown is true as it stands, and says so where parts are off', () => {
    const far = fc.array(fc.double({ min: 0.95, max: 1.05, noNaN: true }), {
      minLength: 40,
      maxLength: 40,
    });
    fc.assert(
      fc.property(designable(topology), far, (ask, factors) => {
        const exact = topology.design(ask);
        const rounded = realValues(topology, exact, DEFAULT_PARTS);
        const off = Object.fromEntries(
          Object.entries(exact).map(([id, value], i) => [id, value * factors[i % 40]]),
        );
        for (const values of [exact, rounded, off]) {
          const { q } = topology.figures(values);
          if (q !== undefined && !(q > 0 && q < 200)) continue;
          const explained = topology.explain(values);
          const unequal = explained.filter(({ numbers }) => {
            const sides = shownSides(numbers);
            return sides && !(Math.abs(sides[0] - sides[1]) < 1e-3 * Math.abs(sides[1]) + 1e-12);
          });
          expect(unequal).toEqual([]);
          // Whatever is claimed of a part or figure is what it is, or is marked as the design's.
          const untrue = explained.filter(({ of, numbers, source, off: said }) => {
            if (!source) return false;
            if (source.value !== (of in values ? values[of] : source.named[of])) return true;
            if (said !== undefined) return !said.includes('formula of the design');
            const gives = texValue(source.formula, source.named);
            const isNear = Math.abs(gives - source.value) <= 1e-3 * Math.abs(source.value);
            return !numbers.includes('\\ge') && !isNear;
          });
          expect(untrue).toEqual([]);
        }
      }),
      { numRuns: 2 },
    );
  });

  test('illegal asks are refused in words', () => {
    const [legal] = fc.sample(designable(topology), { numRuns: 1, seed: 1 });
    expect(() => topology.design({ ...legal, f0Hz: -1 })).toThrow(/more than 0 Hz/);
    const wrongGain = topology.gain === 'inverting' ? 2 : topology.limits.gain[1] * 2;
    expect(() => topology.design({ ...legal, gain: wrongGain })).toThrow(/gain/);
    if (topology.limits.q)
      expect(() => topology.design({ ...legal, q: 1000 })).toThrow(/Q = 1000 is outside/);
  });
});
