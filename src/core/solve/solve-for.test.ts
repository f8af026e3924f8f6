import fc from 'fast-check';
import { AcAnalysis } from '@/core/analysis/ac/ac';
import { makeCircuit, type Circuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { designCircuit } from '@/core/design/circuit';
import { HALF_POWER_DB } from '@/core/response/decibels';
import { readMeasure, ResponseReader, type Measure } from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { TOPOLOGIES } from '@/core/topologies';
import { designable } from '@/core/topologies/testing/asks';
import { solveFor } from './solve-for';
import { surroundings } from './span-of';

const edge: Measure = {
  measure: 'edge',
  downDb: HALF_POWER_DB,
  side: 'upper',
  reference: { from: 'plateau' },
};
const level = (atHz: number): Measure => ({ measure: 'level', atHz });
const RC = (ohms = 10e3, farads = 10e-9): Circuit =>
  makeCircuit([
    UNIT_SOURCE,
    { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms },
    { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads },
  ]);

const solve = (circuit: Circuit, part: string, measure: Measure, want: number, more = {}) =>
  solveFor({
    circuit,
    probe: 'out',
    part,
    measure,
    want,
    ...surroundings(circuit, 'out'),
    ...more,
  });

test('one value, as the closed form has it', () => {
  const { solutions, why } = solve(RC(), 'R1', edge, 440);
  expect(why).toBeNull();
  expect(solutions).toHaveLength(1);
  expect(solutions[0].value / (1 / (2 * Math.PI * 440 * 10e-9))).toBeCloseTo(1, 5);
  expect(solutions[0].reads).toBeCloseTo(440, 6);
});

test('all values, where a reading comes back', () => {
  // A coil and a capacitor across: the level at 1 kHz peaks at resonance and falls on both sides.
  const circuit = makeCircuit([
    UNIT_SOURCE,
    { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 1000 },
    { id: 'L1', kind: 'inductor', a: 'out', b: '0', henries: 0.05 },
    { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 100e-9 },
  ]);
  const { solutions } = solve(circuit, 'C1', level(1000), -6);
  expect(solutions).toHaveLength(2);
  // |H| = 1/2: (w C - 1/(w L)) R = ±sqrt 3.
  const w = 2 * Math.PI * 1000;
  const half = Math.sqrt(10 ** 0.6 - 1);
  const values = [-half, half].map((s) => (s / 1000 + 1 / (w * 0.05)) / w);
  solutions.forEach(({ value }, i) => expect(value / values[i]).toBeCloseTo(1, 7));
});

test.each<[string, string, Measure, number, RegExp]>([
  ['a gain that it has not', 'C1', level(1000), 6, /never reaches 6/],
  [
    'a part that has nothing to do with it',
    'R2',
    level(1000),
    -3,
    /stays at .* does not bear on it/,
  ],
  ['a reading that it never has', 'C1', { ...edge, side: 'lower' }, 50, /no such reading/],
])('%s: says why there is none', (_, part, measure, want, why) => {
  const circuit = makeCircuit([
    ...RC().parts,
    { id: 'R2', kind: 'resistor', a: 'in', b: '0', ohms: 1000 },
  ]);
  const found = solve(circuit, part, measure, want);
  expect(found.solutions).toEqual([]);
  expect(found.why).toMatch(why);
});

test('bounds are kept, and bounds that enclose nothing are refused', () => {
  expect(solve(RC(), 'R1', edge, 440, { from: 1e3, to: 20e3 }).solutions).toEqual([]);
  expect(() => solve(RC(), 'R1', edge, 440, { from: 5, to: 5 })).toThrow(/no value for R1/);
  expect(() => solve(RC(), 'R9', edge, 440)).toThrow(/no part “R9”/);
});

test('a turn of a potentiometer, and any field by its name', () => {
  const circuit = makeCircuit([
    UNIT_SOURCE,
    {
      id: 'P1',
      kind: 'potentiometer',
      a: 'in',
      wiper: 'out',
      b: '0',
      ohms: 10e3,
      taper: 'linear',
      turn: 0.2,
      endOhms: 0,
      mismatch: 0,
    },
  ]);
  const { solutions, field } = solve(circuit, 'P1', level(1000), 20 * Math.log10(0.5));
  expect(field).toBe('turn');
  expect(solutions).toHaveLength(1);
  expect(solutions[0].value).toBeCloseTo(0.5, 5);
  expect(solve(circuit, 'P1.ohms', level(1000), -6).why).toMatch(/does not bear/);
});

/*
 * Round trip over every topology: a part is put elsewhere, and what it was is found again by what the
 * circuit read before.
 */
describe.each(TOPOLOGIES.map((t) => [t.id, t] as const))('%s', (_, topology) => {
  test('finds a part again by the level that it gave', () => {
    fc.assert(
      fc.property(
        designable(topology),
        fc.nat(99),
        fc.constantFrom(0.5, 0.9, 1.3, 2),
        fc.constantFrom(0.7, 1, 1.4),
        (ask, pick, factor, at) => {
          const stage = { topology, ask, choice: {}, values: topology.design(ask) };
          const { circuit } = designCircuit({ stages: [stage] }, 'ideal');
          const parts = circuit.parts.filter((p) => /^[RCL]\d/.test(p.id));
          if (parts.length === 0) return;
          const part = parts[pick % parts.length];
          const around = surroundings(circuit, 'out');
          const measure = level(ask.f0Hz * at);
          const read = (c: Circuit) =>
            readMeasure(new ResponseReader(responseOf(new AcAnalysis(c), 'out'), around), measure)
              .value;
          const want = read(circuit);
          const field = ['ohms', 'farads', 'henries'].find((f) => f in part)!;
          const was = (part as unknown as Record<string, number>)[field];
          const moved: Circuit = {
            ...circuit,
            parts: circuit.parts.map((p) => (p === part ? { ...p, [field]: was * factor } : p)),
          };
          // A null is no level to go by, and a part that does not matter cannot be found.
          if (want < -150 || Math.abs(read(moved) - want) < 1e-3) return;
          const request = { circuit: moved, probe: 'out', part: part.id, measure, want, ...around };
          const { solutions } = solveFor(request);
          const found = solutions.some(({ value }) => Math.abs(value / was - 1) < 1e-3);
          if (!found) throw new Error(`${part.id} ${was} among ${JSON.stringify(solutions)}`);
        },
      ),
      { numRuns: 4 },
    );
  });
});
