import fc from 'fast-check';
import type { Ladder } from './ladder-network';
import { doublyTerminated, singlyTerminated } from './ladder';
import { denominatorOf, misfit } from './ladder-polish';
import { lowPassPrototype, prototypeMagnitude, type Prototype } from './prototypes';

const prototype = (shape: Parameters<typeof lowPassPrototype>[0]): Prototype =>
  lowPassPrototype(shape);

/*
 * Element values are compared to five digits: in a lossless ladder the level answers them only in
 * second order, so that more digits of them mean nothing; levels are compared to seven and more.
 */

/** |H(jw)| of a ladder by walking it arm by arm with complex numbers, from the load to the source. */
function ladderLevel({ elements, traps, loadOhms, first }: Ladder, w: number): number {
  let v = { re: 1, im: 0 };
  let i = { re: 1 / loadOhms, im: 0 };
  for (let k = elements.length - 1; k >= 0; k--) {
    const e = elements[k];
    if ((first === 'shunt') === (k % 2 === 0))
      i = { re: i.re - v.im * w * e, im: i.im + v.re * w * e };
    else {
      const x = traps[k] > 0 ? (w * e) / (1 - w * w * e * traps[k]) : w * e;
      v = { re: v.re - i.im * x, im: v.im + i.re * x };
    }
  }
  return first === 'shunt' ? 1 / Math.hypot(v.re + i.re, v.im + i.im) : 1 / Math.hypot(v.re, v.im);
}

describe('between two resistors', () => {
  test.each([2, 3, 5, 8, 10])('Butterworth of order %d is 2 sin((2k-1) pi/2n)', (n) => {
    const { elements, loadOhms } = doublyTerminated(
      prototype({ shape: 'butterworth', order: n }).sections,
    );
    expect(loadOhms).toBeCloseTo(1, 10);
    elements.forEach((e, k) =>
      expect(e).toBeCloseTo(2 * Math.sin(((2 * k + 1) * Math.PI) / (2 * n)), 5),
    );
  });

  // H. Takahasi, "On the ladder-type filter network with Tchebysheff response", 1951.
  test.each([
    [3, 0.1],
    [5, 0.5],
    [7, 1],
    [9, 0.2],
  ])('Chebyshev of order %d and %d dB is Takahasi’s ladder', (n, rippleDb) => {
    const { elements } = doublyTerminated(
      prototype({ shape: 'chebyshev', order: n, rippleDb, edge: 'ripple' }).sections,
    );
    const beta = Math.log(1 / Math.tanh((rippleDb * Math.LN10) / 40));
    const gamma = Math.sinh(beta / (2 * n));
    const a = (k: number) => Math.sin(((2 * k - 1) * Math.PI) / (2 * n));
    const b = (k: number) => gamma ** 2 + Math.sin((k * Math.PI) / n) ** 2;
    let g = (2 * a(1)) / gamma;
    expect(elements[0]).toBeCloseTo(g, 5);
    for (let k = 2; k <= n; k++) {
      g = (4 * a(k - 1) * a(k)) / (b(k - 1) * g);
      expect(elements[k - 1]).toBeCloseTo(g, 5);
    }
  });

  test('an even Chebyshev order needs unequal resistors, as tanh squared says', () => {
    const rippleDb = 0.5;
    const { loadOhms } = doublyTerminated(
      prototype({ shape: 'chebyshev', order: 4, rippleDb, edge: 'ripple' }).sections,
    );
    const beta = Math.log(1 / Math.tanh((rippleDb * Math.LN10) / 40));
    expect(loadOhms).toBeCloseTo(Math.tanh(beta / 4) ** 2, 8);
  });

  test('any shape, order and frequency: the walked ladder has the prototype’s level', () => {
    const shapes = [
      'butterworth',
      'chebyshev',
      'bessel',
      'optimum-l',
      'gaussian',
      'critically-damped',
    ] as const;
    fc.assert(
      fc.property(
        fc.constantFrom(...shapes),
        fc.integer({ min: 2, max: 10 }),
        fc.double({ min: 0.05, max: 4, noNaN: true }),
        (shape, order, w) => {
          // Ten poles in one place leave a ladder that doubles cannot tell apart; it is refused.
          fc.pre(shape !== 'critically-damped' || order < 9);
          const p = prototype({ shape, order, rippleDb: 0.3 });
          const ladder = doublyTerminated(p.sections);
          const want =
            prototypeMagnitude({ ...p, dcGain: 1 }, w) * (ladder.loadOhms / (1 + ladder.loadOhms));
          // The walk starts from one volt at the load.
          expect(ladderLevel(ladder, w) / want).toBeCloseTo(1, 7);
          for (const e of ladder.elements) expect(e).toBeGreaterThan(0);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('traps stand at the zeros, and the level is the prototype’s', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(3, 5, 7),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.double({ min: 35, max: 65, noNaN: true }),
        fc.double({ min: 0.05, max: 3, noNaN: true }),
        (order, rippleDb, stopbandDb, w) => {
          const p = prototype({ shape: 'elliptic', order, rippleDb, stopbandDb, edge: 'ripple' });
          const ladder = doublyTerminated(p.sections, p.zeros);
          const zeros = ladder.elements.flatMap((e, k) =>
            ladder.traps[k] > 0 ? [1 / Math.sqrt(e * ladder.traps[k])] : [],
          );
          expect(zeros.sort((a, b) => a - b)).toEqual(
            [...p.zeros].sort((a, b) => a - b).map((z) => expect.closeTo(z, 8) as number),
          );
          const want =
            (prototypeMagnitude(p, w) / p.dcGain) * (ladder.loadOhms / (1 + ladder.loadOhms));
          expect(Math.abs(ladderLevel(ladder, w) - want)).toBeLessThan(1e-8);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('zeros with an even order are refused with what to do', () => {
    const p = prototype({ shape: 'elliptic', order: 4, rippleDb: 0.5, stopbandDb: 40 });
    expect(() => doublyTerminated(p.sections, p.zeros)).toThrow(/ask for an odd order/);
  });
});

describe('driven from no resistance', () => {
  test.each([
    [3, [1.5, 4 / 3, 0.5]],
    [4, [1.53073, 1.57716, 1.08239, 0.38268]],
  ])('Butterworth of order %d is the published one', (order, elements) => {
    const found = singlyTerminated(prototype({ shape: 'butterworth', order: order }).sections);
    expect(found.elements).toEqual(elements.map((e) => expect.closeTo(e, 4) as number));
  });

  test('its level is the prototype’s, with nothing lost', () => {
    for (const order of [2, 3, 6, 9]) {
      const p = prototype({ shape: 'bessel', order });
      const ladder = singlyTerminated(p.sections);
      for (const w of [0.2, 0.7, 1, 1.6])
        expect(ladderLevel(ladder, w) / prototypeMagnitude(p, w)).toBeCloseTo(1, 6);
    }
  });
});

test('a ladder’s denominator is that of its poles to the last digits', () => {
  for (const order of [6, 8, 10]) {
    const { sections } = prototype({ shape: 'gaussian', order });
    const ladder = doublyTerminated(sections);
    expect(denominatorOf(ladder)).toHaveLength(order + 1);
    expect(misfit(ladder, sections)).toBeLessThan(1e-9);
  }
});
