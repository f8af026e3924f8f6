import fc from 'fast-check';
import { acResponse } from '@/core/analysis/ac/ac';
import { makeCircuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { minus, ONE, over, plus, scaled, size, times, type Complex } from '@/core/numeric/complex';
import { topologyOf } from './index';
import { instantiate, netsOfDrawing } from './instantiate';

/*
 * The transfer functions of textbooks, written down apart from the topologies' own equations, against
 * the solved circuit for any part values at all: what is drawn is the circuit that the books mean.
 * M. E. Van Valkenburg, “Analog Filter Design” (1982), chapters 5 to 8 and 16; L. P. Huelsman, P. E.
 * Allen, “Introduction to the Theory and Design of Active Filters” (1980), chapter 4; passive networks
 * by nodal analysis.
 */

type Values = Readonly<Record<string, number>>;
type Transfer = (s: Complex, v: Values) => Complex;

const real = (re: number): Complex => ({ re, im: 0 });
const over1 = (a: Complex): Complex => over(ONE, a);
const par = (a: Complex, b: Complex): Complex => over(times(a, b), plus(a, b));
/** a0 + a1 s + a2 s^2 + ... */
const poly = (s: Complex, ...a: number[]): Complex =>
  a.reduceRight<Complex>((sum, k) => plus(times(sum, s), real(k)), real(0));
const capacitor = (s: Complex, farads: number): Complex => over1(scaled(s, farads));

/** Two equal resistors and capacitors, the middle ones two in parallel: 1 + s^2 R^2 C^2 over that and 4 s R C. */
const twinT: Transfer = (s, { R1, C1 }) =>
  over(poly(s, 1, 0, (R1 * C1) ** 2), poly(s, 1, 4 * R1 * C1, (R1 * C1) ** 2));
const matched = ({ R1, C1, ...rest }: Values): Values =>
  Object.fromEntries(
    Object.keys({ R1, C1, ...rest }).map((id) => [id, id.startsWith('R') ? R1 : C1]),
  );

/** Sallen and Key’s low-pass about an amplifier of gain K. */
const aboutGain: Transfer = (s, { R1, R2, C1, C2, RF, RG }) => {
  const K = 1 + RF / RG;
  const first = C2 * (R1 + R2) + R1 * C1 * (1 - K);
  return over(real(K), poly(s, 1, first, R1 * R2 * C1 * C2));
};

/** Two integrators and a summing amplifier; the parts of the loop at each of its outputs. */
function stateVariable(s: Complex, { R1, R2, R3, R4, R5, R6, R7, C1, C2 }: Values) {
  const beta = R5 / (R4 + R5);
  const sum = 1 / R1 + 1 / R2 + 1 / R3;
  const [a, b] = [capacitor(scaled(s, R6), C1), capacitor(scaled(s, R7), C2)];
  const loop = plus(scaled(a, R3 * beta * sum), scaled(times(a, b), R3 / R2));
  const high = over(real(-R3 / R1), plus(ONE, loop));
  return { high, band: scaled(times(a, high), -1), low: times(times(a, b), high) };
}

const TEXTBOOK: Record<string, { transfer: Transfer; values?: (v: Values) => Values }> = {
  'rc-low-pass': { transfer: (s, { R1, C1 }) => over1(poly(s, 1, R1 * C1)) },
  'rc-high-pass': { transfer: (s, { R1, C1 }) => over(poly(s, 0, R1 * C1), poly(s, 1, R1 * C1)) },
  'rl-low-pass': { transfer: (s, { R1, L1 }) => over1(poly(s, 1, L1 / R1)) },
  'rlc-low-pass': {
    transfer: (s, { R1, L1, C1 }) => over1(poly(s, 1, R1 * C1, L1 * C1)),
  },
  'rlc-band-pass': {
    transfer: (s, { R1, L1, C1 }) => over(poly(s, 0, R1 * C1), poly(s, 1, R1 * C1, L1 * C1)),
  },
  'rlc-notch': {
    transfer: (s, { R1, L1, C1 }) => over(poly(s, 1, 0, L1 * C1), poly(s, 1, R1 * C1, L1 * C1)),
  },
  'wien-band': {
    transfer: (s, { R1, R2, C1, C2 }) =>
      over(poly(s, 0, R2 * C1), poly(s, 1, R1 * C1 + R2 * C2 + R2 * C1, R1 * R2 * C1 * C2)),
  },
  'bridged-t': {
    transfer: (s, { R1, R2, C1, C2 }) => {
      const own = R1 * (C1 + C2);
      const square = R1 * R2 * C1 * C2;
      return over(poly(s, 1, own, square), poly(s, 1, own + R2 * C2, square));
    },
  },
  'twin-t': { transfer: twinT, values: matched },
  'twin-t-notch': { transfer: twinT, values: matched },
  'lead-lag': {
    transfer: (s, { R1, R2, C1, C2 }) => {
      const below = plus(real(R2), capacitor(s, C2));
      return over(below, plus(par(real(R1), capacitor(s, C1)), below));
    },
  },
  'l-pad': {
    transfer: (_, { R1, R2, RL }) => {
      const below = par(real(R2), real(RL));
      return over(below, plus(real(R1), below));
    },
  },
  't-pad': {
    transfer: (_, { R1, R2, R3, RL }) => {
      const below = par(real(R3), real(R2 + RL));
      return scaled(over(below, plus(real(R1), below)), RL / (R2 + RL));
    },
  },
  'pi-pad': {
    transfer: (_, { R2, R3, RL }) => {
      const below = par(real(R3), real(RL));
      return over(below, plus(real(R2), below));
    },
  },
  inverting: { transfer: (_, { R1, R2 }) => real(-R2 / R1) },
  'non-inverting': { transfer: (_, { RF, RG }) => real(1 + RF / RG) },
  summing: { transfer: (_, { R1, R3 }) => real(-R3 / R1) },
  difference: {
    transfer: (_, { R1, R2, R3, R4 }) => real((R4 / (R3 + R4)) * (1 + R2 / R1)),
  },
  'all-pass-first': {
    transfer: (s, { R1, R2, R3, C1 }) =>
      minus(scaled(over1(poly(s, 1, R3 * C1)), 1 + R2 / R1), real(R2 / R1)),
  },
  'low-shelf-lift': {
    transfer: (s, { R1, R2, R3, C1 }) =>
      scaled(plus(real(R2), par(real(R3), capacitor(s, C1))), -1 / R1),
  },
  'high-shelf-cut': {
    transfer: (s, { R1, R2, R3, C1 }) =>
      scaled(par(real(R2), plus(real(R3), capacitor(s, C1))), -1 / R1),
  },
  'shaped-gain-top': {
    transfer: (s, { RF, RG, CF }) => plus(ONE, scaled(par(real(RF), capacitor(s, CF)), 1 / RG)),
  },
  'unity-low-pass': {
    transfer: (s, { R1, R2, C1, C2 }) => over1(poly(s, 1, C2 * (R1 + R2), R1 * R2 * C1 * C2)),
  },
  'unity-high-pass': {
    transfer: (s, { R1, R2, C1, C2 }) => {
      const square = R1 * R2 * C1 * C2;
      return over(poly(s, 0, 0, square), poly(s, 1, R1 * (C1 + C2), square));
    },
  },
  'equal-part-low-pass': { transfer: aboutGain },
  'gain-low-pass': { transfer: aboutGain },
  'multiple-feedback-low-pass': {
    transfer: (s, { R1, R2, R3, C1, C2 }) =>
      over(real(-R2 / R1), poly(s, 1, C2 * (R2 + R3 + (R2 * R3) / R1), R2 * R3 * C1 * C2)),
  },
  'multiple-feedback-high-pass': {
    transfer: (s, { R1, R2, C1, C2, C3 }) => {
      const square = R1 * R2 * C2 * C3;
      return over(scaled(poly(s, 0, 0, square), -C1 / C3), poly(s, 1, R1 * (C1 + C2 + C3), square));
    },
  },
  'multiple-feedback-band-pass': {
    transfer: (s, { R1, R2, R3, C1, C2 }) =>
      over(
        poly(s, 0, -1 / (R1 * C1)),
        poly(s, (1 / R1 + 1 / R2) / (R3 * C1 * C2), (1 / C1 + 1 / C2) / R3, 1),
      ),
  },
  'third-order-low-pass': {
    transfer: (s, { R1, R2, R3, C1, C2, C3 }) =>
      over1(
        poly(
          s,
          1,
          C1 * R1 + C3 * (R1 + R2 + R3),
          C1 * C3 * R1 * (R2 + R3) + C2 * C3 * R3 * (R1 + R2),
          R1 * R2 * R3 * C1 * C2 * C3,
        ),
      ),
  },
  'two-integrator-low-pass': {
    transfer: (s, { R1, R2, R3, R4, R5, R6, C1, C2 }) =>
      over(real(1 / R1), poly(s, R6 / (R3 * R5), (R4 * C2) / R2, R4 * C1 * C2)),
  },
  'state-variable-low-pass': { transfer: (s, v) => stateVariable(s, v).low },
  'state-variable-band-pass': { transfer: (s, v) => stateVariable(s, v).band },
  'state-variable-high-pass': { transfer: (s, v) => stateVariable(s, v).high },
};

/** The drawn circuit of given values with ideal op-amps, solved. */
function solved(id: string, values: Values, hz: number): Complex {
  const parts = instantiate(topologyOf(id).drawing, {
    dataOf: ({ id: part, kind }) =>
      kind === 'op-amp' ? { model: 'ideal' } : { value: values[part] },
    partName: (part) => `part.${part}`,
    netName: (net) => net,
  });
  const circuit = makeCircuit([UNIT_SOURCE, ...parts]);
  const { re, im } = acResponse(circuit, { frequenciesHz: [hz], probes: ['out'] }).probes.out;
  return { re: re[0], im: im[0] };
}

/** From a seed number between 0 and 1 a value over two decades about what is usual. */
const valued = (id: string, x: number): number =>
  (id.startsWith('R') ? 1e4 : id.startsWith('C') ? 1e-8 : 1e-2) * 10 ** (2 * x - 1);

test.each(Object.keys(TEXTBOOK))('%s is the circuit of the textbooks, for any parts', (id) => {
  const ids = netsOfDrawing(topologyOf(id).drawing)
    .parts.filter((p) => p.kind !== 'op-amp')
    .map((p) => p.id);
  const unit = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(fc.tuple(...ids.map(() => unit)), unit, (draws, f) => {
      const drawn: Values = Object.fromEntries(
        ids.map((part, i) => [part, valued(part, draws[i])]),
      );
      const { transfer, values = (v: Values) => v } = TEXTBOOK[id];
      const parts = values(drawn);
      const hz = 10 ** (1 + 4 * f);
      const [found, wanted] = [
        solved(id, parts, hz),
        transfer({ re: 0, im: 2 * Math.PI * hz }, parts),
      ];
      // An oscillating circuit has no response to compare at its own frequency.
      expect(size(minus(found, wanted))).toBeLessThanOrEqual(1e-7 * Math.max(size(wanted), 1e-3));
    }),
    { numRuns: 25 },
  );
});

describe('figures that every table has', () => {
  const sheetOf = (id: string, values: Values) => topologyOf(id).figures(values);

  test('Sallen and Key with equal parts: Q = 1/(3 - K)', () => {
    for (const K of [1.1, 1.586, 2.5, 2.9]) {
      const parts = { R1: 1e4, R2: 1e4, C1: 1e-8, C2: 1e-8, RF: 1e4 * (K - 1), RG: 1e4 };
      const { q, f0Hz, gain } = sheetOf('equal-part-low-pass', parts);
      expect(q).toBeCloseTo(1 / (3 - K), 9);
      expect(f0Hz).toBeCloseTo(1 / (2 * Math.PI * 1e-4), 6);
      expect(gain).toBeCloseTo(K, 9);
    }
  });

  test('Sallen and Key of unity gain and equal resistors: Q = sqrt(C1/C2)/2', () => {
    for (const ratio of [1, 2, 9]) {
      const parts = { R1: 1e4, R2: 1e4, C1: ratio * 1e-9, C2: 1e-9 };
      expect(sheetOf('unity-low-pass', parts).q).toBeCloseTo(Math.sqrt(ratio) / 2, 9);
    }
  });

  test('a band-pass of multiple feedback with equal capacitors: Q = pi f0 C R3, gain = -R3/2R1', () => {
    const parts = { R1: 1e4, R2: 1e3, R3: 1e5, C1: 1e-8, C2: 1e-8 };
    const { q, f0Hz, gain } = sheetOf('multiple-feedback-band-pass', parts);
    expect(q).toBeCloseTo(Math.PI * f0Hz * 1e-8 * 1e5, 9);
    expect(gain).toBeCloseTo(-5, 9);
  });

  test('Wien’s network passes a third at 1/(2 pi R C)', () => {
    const { f0Hz, gain } = sheetOf('wien-band', { R1: 1e4, R2: 1e4, C1: 1e-8, C2: 1e-8 });
    expect(gain).toBeCloseTo(1 / 3, 9);
    expect(f0Hz).toBeCloseTo(1591.549, 2);
  });

  test('Wien’s network loaded by itself has Q = 1/3, as an RC ladder never reaches a half', () => {
    expect(sheetOf('wien-band', { R1: 1e4, R2: 1e4, C1: 1e-8, C2: 1e-8 }).q).toBeCloseTo(1 / 3, 9);
    const { poles = [] } = sheetOf('rc-sections-low-pass-2', {
      R1: 1e4,
      R2: 1e4,
      C1: 1e-8,
      C2: 1e-8,
    });
    // Two equal sections: (3 ± sqrt 5)/2 times 1/RC (G. S. Moschytz, “Linear Integrated Networks”, 1974).
    const found = poles.map((p) => p.f0Hz * 2 * Math.PI * 1e-4).sort((a, b) => a - b);
    expect(found[0]).toBeCloseTo((3 - Math.sqrt(5)) / 2, 6);
    expect(found[1]).toBeCloseTo((3 + Math.sqrt(5)) / 2, 6);
  });
});
