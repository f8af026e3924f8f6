import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import {
  delayAtDc,
  hasEdge,
  lowPassPrototype,
  polesOfSection,
  prototypeMagnitude,
  prototypePhase,
  SHAPES,
  type Edge,
  type Shape,
} from './index';

interface Approximation {
  shape: Shape;
  order: number;
  rippleDb?: number;
  stopbandDb?: number;
  normalisation?: 'mag' | 'phase' | 'delay';
  poles: [number, number][];
  zeros: [number, number][];
}

const APPROXIMATIONS = JSON.parse(
  readFileSync(join(__dirname, '../../fixtures/approximations.json'), 'utf8'),
) as Approximation[];

/** The edge each reference entry is normalised to. */
const edgeOf = ({ shape, normalisation }: Approximation): Edge =>
  normalisation === 'delay'
    ? 'unit-delay'
    : normalisation === 'phase'
      ? 'asymptote'
      : shape === 'butterworth' || shape === 'bessel'
        ? 'half-power'
        : 'ripple';

describe('poles and zeros of the reference tables', () => {
  test.each(
    APPROXIMATIONS.map(
      (a) =>
        [
          `${a.shape} ${a.order} ${a.rippleDb ?? ''} ${a.stopbandDb ?? ''} ${a.normalisation ?? ''}`,
          a,
        ] as const,
    ),
  )('%s', (_, a) => {
    const found = lowPassPrototype({ ...a, edge: edgeOf(a) });
    const poles = found.sections.flatMap(polesOfSection);
    expect(poles).toHaveLength(a.poles.length);
    for (const [re, im] of a.poles) {
      const nearest = Math.min(...poles.map((p) => Math.hypot(p.re - re, p.im - im)));
      expect(nearest / Math.hypot(re, im)).toBeLessThan(1e-9);
    }
    expect(found.zeros).toHaveLength(a.zeros.length / 2);
    for (const [, im] of a.zeros) {
      const nearest = Math.min(...found.zeros.map((z) => Math.abs(z - Math.abs(im))));
      expect(nearest / Math.abs(im)).toBeLessThan(1e-9);
    }
  });
});

const options = fc.record({
  shape: fc.constantFrom(...SHAPES),
  order: fc.integer({ min: 1, max: 10 }),
  edge: fc.constantFrom('half-power', 'half-voltage', 'ripple', 'unit-delay' as const),
  rippleDb: fc.double({ min: 0.05, max: 2.5, noNaN: true }),
  stopbandDb: fc.double({ min: 20, max: 100, noNaN: true }),
});

test('the edge is where it was asked for, for every shape, order and convention', () => {
  fc.assert(
    fc.property(options, (ask) => {
      const { shape, order, edge, rippleDb, stopbandDb } = ask;
      if (!hasEdge(shape, edge)) {
        expect(() => lowPassPrototype(ask)).toThrow(/ripple edge/);
        return;
      }
      if (shape === 'linkwitz-riley' && (order % 2 === 1 || order > 8)) {
        expect(() => lowPassPrototype(ask)).toThrow(/order 2, 4, 6 or 8/);
        return;
      }
      const found = lowPassPrototype(ask);
      if (edge === 'unit-delay') {
        expect(delayAtDc(found)).toBeCloseTo(1, 9);
        return;
      }
      const want =
        edge === 'half-power'
          ? Math.SQRT1_2
          : edge === 'half-voltage'
            ? 0.5
            : 10 ** (-(shape === 'inverse-chebyshev' ? stopbandDb : rippleDb) / 20);
      expect(prototypeMagnitude(found, 1) / want).toBeCloseTo(1, 8);
    }),
    { numRuns: 300 },
  );
});

test('rippled bands keep to their limits, everywhere', () => {
  fc.assert(
    fc.property(options, fc.double({ min: 0, max: 1, noNaN: true }), (ask, part) => {
      if (ask.shape !== 'elliptic' && ask.shape !== 'chebyshev') return;
      const found = lowPassPrototype({ ...ask, edge: 'ripple' });
      const inBand = 20 * Math.log10(prototypeMagnitude(found, part));
      expect(inBand).toBeLessThan(1e-7);
      expect(inBand).toBeGreaterThan(-ask.rippleDb - 1e-7);
      if (found.zeros.length === 0) return;
      const from = Math.min(...found.zeros);
      const beyond = prototypeMagnitude(found, from / Math.max(part, 1e-3));
      expect(20 * Math.log10(beyond + 1e-30)).toBeLessThan(-ask.stopbandDb + 1e-6);
    }),
    { numRuns: 300 },
  );
});

describe('shapes with a property of their own', () => {
  const orders = [2, 3, 4, 5, 6, 7, 8, 9, 10];

  test.each(orders)(
    'optimum-L of order %d only falls, and ends lower than Butterworth',
    (order) => {
      const found = lowPassPrototype({ shape: 'optimum-l', order });
      let last = 1;
      for (let w = 0.01; w < 3; w += 0.01) {
        const here = prototypeMagnitude(found, w);
        expect(here).toBeLessThanOrEqual(last + 1e-9);
        last = here;
      }
      const butterworth = lowPassPrototype({ shape: 'butterworth', order });
      if (order > 2)
        expect(prototypeMagnitude(found, 4)).toBeLessThan(prototypeMagnitude(butterworth, 4));
    },
  );

  test('optimum-L of order 3 has the published polynomial 1 - ... + 3 w^6', () => {
    // L_3(w^2) = w^2 - 3 w^4 + 3 w^6 (Papoulis 1958).
    const found = lowPassPrototype({ shape: 'optimum-l', order: 3 });
    for (const w of [0.3, 0.9, 2])
      expect(prototypeMagnitude(found, w)).toBeCloseTo(
        1 / Math.sqrt(1 + w ** 2 - 3 * w ** 4 + 3 * w ** 6),
        9,
      );
  });

  test.each(orders)('equal-ripple phase of order %d keeps within its ripple of a line', (order) => {
    const ripple = 0.5;
    const found = lowPassPrototype({
      shape: 'equal-ripple-phase',
      order,
      rippleDegrees: ripple,
      edge: 'unit-delay',
    });
    // The line is the best one, not the tangent at d.c.: its slope is near the delay there.
    const error = (w: number, slope: number) =>
      (Math.abs(-prototypePhase(found, w) - slope * w) * 180) / Math.PI;
    const worst = (slope: number) =>
      Math.max(...Array.from({ length: 60 }, (_, k) => error((0.6 * k) / 60, slope)));
    const best = Math.min(...Array.from({ length: 81 }, (_, k) => worst(0.9 + k * 0.0025)));
    expect(best).toBeLessThan(ripple * 1.05);
  });

  test('gaussian: order 10 follows exp(-w^2 ln 2 / 2) down to -12 dB', () => {
    const found = lowPassPrototype({ shape: 'gaussian', order: 10 });
    for (const w of [0.2, 0.7, 1, 1.5, 2])
      expect(prototypeMagnitude(found, w)).toBeCloseTo(Math.exp((-w * w * Math.LN2) / 2), 3);
  });

  test('Linkwitz-Riley: the squares of Butterworth; low and high sum flat', () => {
    for (const order of [2, 4, 6, 8]) {
      const found = lowPassPrototype({ shape: 'linkwitz-riley', order });
      const half = lowPassPrototype({ shape: 'butterworth', order: order / 2 });
      for (const w of [0.1, 1, 3])
        expect(prototypeMagnitude(found, w)).toBeCloseTo(prototypeMagnitude(half, w) ** 2, 12);
      expect(prototypeMagnitude(found, 1)).toBeCloseTo(0.5, 12);
    }
  });

  test.each([0, 11, 2.5])('order %d is refused', (order) =>
    expect(() => lowPassPrototype({ shape: 'bessel', order })).toThrow(/order from 1 to 10/),
  );
  test('impossible ripples and stop bands are refused in words', () => {
    expect(() => lowPassPrototype({ shape: 'chebyshev', order: 3, rippleDb: 0 })).toThrow(/ripple/);
    expect(() =>
      lowPassPrototype({ shape: 'elliptic', order: 3, rippleDb: 10, stopbandDb: 12 }),
    ).toThrow(/no deeper/);
    expect(() => lowPassPrototype({ shape: 'elliptic', order: 4, edge: 'asymptote' })).toThrow(
      /levels off/,
    );
  });
});

test('a first-order shape has its edge at 1 rad/s, however deep a stop band it is given', () => {
  // The magnitude at the pole is the target but for rounding, on either side of it.
  for (let stopbandDb = 6; stopbandDb < 100; stopbandDb += 0.37) {
    const [section] = lowPassPrototype({
      shape: 'inverse-chebyshev',
      order: 1,
      stopbandDb,
    }).sections;
    expect(section.w0).toBeCloseTo(1, 12);
  }
});
