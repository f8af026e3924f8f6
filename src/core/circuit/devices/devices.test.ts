import { operatingPoint } from '@/core/analysis/dc/operating-point';
import { transient } from '@/core/analysis/transient/transient';
import { compile } from '../compile';
import { makeCircuit, readCircuit, type Part } from '../schema';
import type { ElementValues, NonlinearElement } from '../stamper';
import { lawsOf } from '../laws';
import type { Law } from '../laws/law';
import { PLAIN } from '../testing/plain-arithmetic';
import { trackPart } from './potentiometer';

const { sin } = Math;

const source: Part = { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', dcVolts: 10 };

/** Read a part through the schema, so that its defaults are filled in. */
const part = (document: Record<string, unknown>): Part =>
  readCircuit({
    format: 'jaunty-reed/circuit',
    version: 1,
    ground: '0',
    parts: [{ id: 'X', ...document }],
  }).parts[0];

const NONLINEAR: Record<string, Record<string, unknown>> = {
  diode: {
    kind: 'diode',
    anode: 'a',
    cathode: 'b',
    model: {
      saturationAmps: 1e-9,
      emissionCoefficient: 1.7,
      junctionFarads: 2e-11,
      transitSeconds: 1e-8,
    },
  },
  npn: {
    kind: 'transistor',
    collector: 'a',
    base: 'b',
    emitter: 'c',
    model: {
      polarity: 'npn',
      saturationAmps: 1e-14,
      betaForward: 150,
      betaReverse: 3,
      earlyVolts: 60,
      baseEmitterFarads: 1e-11,
      baseCollectorFarads: 4e-12,
      transitSeconds: 4e-10,
    },
  },
  pnp: {
    kind: 'transistor',
    collector: 'a',
    base: 'b',
    emitter: 'c',
    model: {
      polarity: 'pnp',
      saturationAmps: 1e-14,
      betaForward: 150,
      betaReverse: 3,
      earlyVolts: 60,
      baseEmitterFarads: 1e-11,
    },
  },
  jfet: {
    kind: 'jfet',
    drain: 'a',
    gate: 'b',
    source: 'c',
    model: {
      polarity: 'n',
      saturatedDrainAmps: 5e-3,
      pinchOffVolts: 2,
      lambdaPerVolt: 0.01,
      gateSourceFarads: 3e-12,
      gateDrainFarads: 2e-12,
    },
  },
  'p-jfet': {
    kind: 'jfet',
    drain: 'a',
    gate: 'b',
    source: 'c',
    model: { polarity: 'p', saturatedDrainAmps: 5e-3, pinchOffVolts: 2 },
  },
  ota: { kind: 'ota', inPlus: 'a', inMinus: 'b', out: 'c', biasAmps: 5e-4 },
  'controlled ota': {
    kind: 'ota',
    inPlus: 'a',
    inMinus: 'b',
    out: 'c',
    bias: 'd',
    biasSiemens: 1e-4,
    diodeAmps: 1e-3,
  },
  photocell: {
    kind: 'photocell',
    a: 'a',
    b: 'b',
    lampPlus: 'c',
    lampMinus: 'd',
    curve: [
      { amps: 1e-3, ohms: 1e5 },
      { amps: 2e-2, ohms: 1e3 },
    ],
  },
  'limited op-amp': {
    kind: 'op-amp',
    inPlus: 'a',
    inMinus: 'b',
    out: 'c',
    supplyPlus: 'd',
    supplyMinus: 'e',
    model: {
      gainBandwidthHz: 1e6,
      dcGainDb: 90,
      slewVoltsPerSecond: 1e6,
      outputAmps: 0.02,
      outputOhms: 50,
      headroomVolts: 1,
    },
  },
};

const emptyValues = (rows: number, inputs: number): ElementValues => ({
  current: new Float64Array(rows),
  conductance: new Float64Array(rows * inputs),
  charge: new Float64Array(rows),
  capacitance: new Float64Array(rows * inputs),
  bias: 0,
});

function evaluateAt(element: NonlinearElement, v: Float64Array): ElementValues {
  const [m, n] = [element.rows.length, element.inputs.length];
  const out = emptyValues(m, n);
  element.evaluate(v, out);
  return out;
}

/** What an element's law says, put together by rows and inputs as `evaluate` gives it. */
function byLaw({ rows, inputs }: NonlinearElement, law: Law, v: Float64Array): ElementValues {
  const [m, n] = [rows.length, inputs.length];
  const at = (input: number) => (input < 0 ? 0 : v[input]);
  const drops = law.drops.map(({ plus, minus }) => at(plus) - at(minus));
  const out = emptyValues(m, n);
  const add = (list: Float64Array, place: number, inside: boolean, x: number | undefined) => {
    if (inside && x !== undefined) list[place] += x;
  };
  for (const flow of law.write(PLAIN, drops, law.constants)) {
    for (const [row, way] of [
      [flow.from, 1],
      [flow.to, -1],
    ]) {
      if (row < 0) continue;
      add(out.current, row, true, flow.current && way * flow.current);
      add(out.charge, row, true, flow.charge && way * flow.charge);
      law.drops.forEach(({ plus, minus }, j) => {
        for (const [slopes, list] of [
          [flow.conductance, out.conductance],
          [flow.capacitance, out.capacitance],
        ] as const) {
          const slope = slopes?.[j];
          add(list, row * n + plus, plus >= 0, slope && way * slope);
          add(list, row * n + minus, minus >= 0, slope && -way * slope);
        }
      });
    }
  }
  return out;
}

describe.each(Object.entries(NONLINEAR))('%s', (name, document) => {
  const { elements } = compile(makeCircuit([part(document)]), 'large-signal');
  const laws = lawsOf(part(document), 'large-signal');

  test('its law for compiled steps says the same', () => {
    expect(laws).toHaveLength(elements.length);
    elements.forEach((element, e) => {
      // What is left of a cancellation is no more than rounding of what the slopes are with all inputs alike, over a volt.
      const rest = evaluateAt(element, new Float64Array(element.inputs.length).fill(0.7));
      const largest = (list: Float64Array) => Math.max(...list.map(Math.abs));
      const rounding = {
        current: largest(rest.conductance),
        conductance: largest(rest.conductance),
        charge: largest(rest.capacitance),
        capacitance: largest(rest.capacitance),
      };
      for (let t = 1; t < 200; t++) {
        // Near rest, in the midst of its bends, and far beyond them.
        const reach = [0.01, 0.7, 15][t % 3];
        const v = Float64Array.from(
          element.inputs,
          (_unknown, k) => reach * sin(1.7 * t + 2.3 * k),
        );
        const [plain, law] = [evaluateAt(element, v), byLaw(element, laws[e], v)];
        for (const key of ['current', 'conductance', 'charge', 'capacitance'] as const) {
          const allowed = 1e-11 * largest(plain[key]) + 4e-15 * rounding[key];
          plain[key].forEach((x, i) =>
            expect(Math.abs(law[key][i] - x)).toBeLessThanOrEqual(allowed),
          );
        }
      }
    });
  });

  test('its derivatives are those of its currents and charges', () => {
    // A differential pair is spent beyond a tenth of a volt: there is no slope left to compare.
    const reach = name.includes('ota') ? 0.05 : 0.55;
    for (let t = 0; t < 25; t++) {
      for (const element of elements) {
        // Fixed places all over the range, none of them on a bend.
        const v = Float64Array.from(
          element.inputs,
          (_unknown, k) => reach * Math.sin(1.7 * t + 2.3 * k + 0.4),
        );
        const here = evaluateAt(element, v);
        element.inputs.forEach((_unknown, k) => {
          const h = 1e-7;
          const moved = (by: number) =>
            evaluateAt(
              element,
              Float64Array.from(v, (x, i) => (i === k ? x + by : x)),
            );
          const [up, down] = [moved(h), moved(-h)];
          element.rows.forEach((_row, r) => {
            const at = r * element.inputs.length + k;
            for (const [slope, high, low, all] of [
              [here.conductance[at], up.current[r], down.current[r], here.conductance],
              [here.capacitance[at], up.charge[r], down.charge[r], here.capacitance],
            ] as const) {
              // Below this the differences are rounding: a saturated tanh, say, has no slope left.
              const rounding = (1e-14 * (Math.abs(high) + Math.abs(low))) / h;
              const least = Math.max(
                rounding,
                1e-6 * all.reduce((a, x) => Math.max(a, Math.abs(x)), 0),
              );
              const size = Math.max(Math.abs(slope), Math.abs(high - low) / (2 * h), least, 1e-15);
              expect(Math.abs(slope - (high - low) / (2 * h)) / size).toBeLessThan(0.02);
            }
          });
        });
      }
    }
  });
});

describe('controls', () => {
  test('tapers: linear, audio and reverse audio reach both ends; a ganged section may run ahead', () => {
    for (const taper of ['linear', 'audio', 'reverse-audio'] as const) {
      expect(trackPart({ taper, turn: 0, mismatch: 0 }).part).toBeCloseTo(0, 12);
      expect(trackPart({ taper, turn: 1, mismatch: 0 }).part).toBeCloseTo(1, 12);
    }
    expect(trackPart({ taper: 'audio', turn: 0.5, mismatch: 0 }).part).toBeCloseTo(0.1, 12);
    expect(trackPart({ taper: 'reverse-audio', turn: 0.5, mismatch: 0 }).part).toBeCloseTo(0.9, 12);
    expect(trackPart({ taper: 'linear', turn: 0.5, mismatch: 0.05 }).part).toBeCloseTo(0.55, 12);
    const divider = makeCircuit([
      source,
      part({
        kind: 'potentiometer',
        a: 'in',
        wiper: 'w',
        b: '0',
        ohms: 1e4,
        turn: 0.25,
        endOhms: 0,
      }),
    ]);
    expect(operatingPoint(divider).nodes.w).toBeCloseTo(7.5, 6);
  });

  test('a switch joins and parts; a JFET with its gate at the source carries its saturated current', () => {
    const switched = (closed: boolean) =>
      operatingPoint(
        makeCircuit([
          source,
          part({ kind: 'switch', a: 'in', b: 'x', closed }),
          { id: 'R', kind: 'resistor', a: 'x', b: '0', ohms: 1000 },
        ]),
      ).nodes.x;
    expect(switched(true)).toBeCloseTo(10, 3);
    expect(switched(false)).toBeLessThan(1e-6);
    const jfet = part({
      kind: 'jfet',
      drain: 'd',
      gate: '0',
      source: '0',
      model: { polarity: 'n', saturatedDrainAmps: 4e-3, pinchOffVolts: 2 },
    });
    expect(
      operatingPoint(
        makeCircuit([source, { id: 'R', kind: 'resistor', a: 'in', b: 'd', ohms: 1000 }, jfet]),
      ).nodes.d,
    ).toBeCloseTo(6, 6);
  });

  test('a photocell follows its lamp: to its curve at rest, faster up than down', () => {
    const cell = part({
      kind: 'photocell',
      a: 'x',
      b: '0',
      lampPlus: 'l',
      lampMinus: '0',
      lampOhms: 100,
      curve: [
        { amps: 1e-3, ohms: 1e5 },
        { amps: 1e-2, ohms: 1e3 },
      ],
      onSeconds: 0.005,
      offSeconds: 0.1,
    });
    const circuit = (waveform?: Extract<Part, { kind: 'voltage-source' }>['waveform']) =>
      makeCircuit([
        source,
        { id: 'R', kind: 'resistor', a: 'in', b: 'x', ohms: 1e3 },
        { id: 'VL', kind: 'voltage-source', plus: 'l', minus: '0', dcVolts: 1, waveform },
        cell,
      ]);
    expect(operatingPoint(circuit()).nodes.x).toBeCloseTo(5, 2);
    const { timesSeconds, probes } = transient(
      circuit({
        shape: 'square',
        lowVolts: 0.1,
        highVolts: 1,
        frequencyHz: 1,
        duty: 0.5,
        delaySeconds: 0.1,
        riseSeconds: 0,
      }),
      { untilSeconds: 1, stepSeconds: 1e-3, probes: ['x'] },
    );
    const at = (t: number) => probes.x[timesSeconds.findIndex((s) => s >= t - 1e-9)];
    const [dark, lit] = [at(0.09), at(0.59)];
    const middle = Math.sqrt(dark * lit);
    const reach = (from: number, crossed: (v: number) => boolean) =>
      timesSeconds[probes.x.findIndex((v, k) => timesSeconds[k] > from && crossed(v))] - from;
    expect(reach(0.1, (v) => v < middle)).toBeLessThan(reach(0.6, (v) => v > middle) / 2);
  });
});
