import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { ResponseReader, type Measure } from './readings';
import { sampleResponse } from './sample';
import { lowPassPrototype, prototypeMagnitude, type Prototype } from './shapes';
import { levelDb, unwrappedDegrees, type Response } from './response';

interface Approximation {
  shape: string;
  order: number;
  rippleDb?: number;
  normalisation?: string;
  poles: [number, number][];
}

const APPROXIMATIONS = JSON.parse(
  readFileSync(join(__dirname, '../fixtures/approximations.json'), 'utf8'),
) as Approximation[];

function polesOf({ sections }: Prototype): [number, number][] {
  return sections.flatMap(({ w0, q }): [number, number][] => {
    if (q === undefined) return [[-w0, 0]];
    const sigma = w0 / (2 * q);
    const omega = Math.sqrt(Math.max(0, w0 * w0 - sigma * sigma));
    return [
      [-sigma, omega],
      [-sigma, -omega],
    ];
  });
}

describe('low-pass prototypes', () => {
  const known = APPROXIMATIONS.filter(
    (a) =>
      a.shape === 'butterworth' ||
      a.shape === 'chebyshev' ||
      (a.shape === 'bessel' && (a.normalisation === 'mag' || a.normalisation === 'phase')),
  );
  test.each(
    known.map((a) => [`${a.shape} ${a.order} ${a.rippleDb ?? a.normalisation ?? ''}`, a] as const),
  )('%s', (_, a) => {
    const edge =
      a.shape === 'chebyshev' ? 'ripple' : a.normalisation === 'phase' ? 'asymptote' : 'half-power';
    const shape = a.shape as 'butterworth' | 'chebyshev' | 'bessel';
    const poles = polesOf(lowPassPrototype({ shape, order: a.order, edge, rippleDb: a.rippleDb }));
    expect(poles).toHaveLength(a.poles.length);
    for (const [re, im] of a.poles) {
      const nearest = Math.min(...poles.map(([x, y]) => Math.hypot(x - re, y - im)));
      expect(nearest / Math.hypot(re, im)).toBeLessThan(1e-9);
    }
  });

  test('the edge is where it was asked for, for every shape, order and convention', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('butterworth', 'chebyshev', 'bessel', 'critically-damped'),
        fc.integer({ min: 1, max: 10 }),
        fc.constantFrom('half-power', 'half-voltage', 'ripple'),
        fc.double({ min: 0.05, max: 3, noNaN: true }),
        (shape, order, edge, rippleDb) => {
          if (edge === 'ripple' && shape !== 'chebyshev') {
            expect(() => lowPassPrototype({ shape, order, edge, rippleDb })).toThrow(/ripple edge/);
            return;
          }
          const want =
            edge === 'half-power'
              ? Math.SQRT1_2
              : edge === 'half-voltage'
                ? 0.5
                : 10 ** (-rippleDb / 20);
          expect(
            prototypeMagnitude(lowPassPrototype({ shape, order, edge, rippleDb }), 1),
          ).toBeCloseTo(want, 9);
        },
      ),
    );
  });

  test.each([0, 11, 2.5])('order %d is refused', (order) =>
    expect(() => lowPassPrototype({ shape: 'bessel', order })).toThrow(/order from 1 to 10/),
  );
});

/** A second-order low-pass in closed form. */
const lowPass =
  (f0: number, q: number, gain = 1): Response =>
  (hz) => {
    const re = new Float64Array(hz.length);
    const im = new Float64Array(hz.length);
    hz.forEach((f, k) => {
      const x = f / f0;
      const [a, b] = [1 - x * x, x / q];
      re[k] = (gain * a) / (a * a + b * b);
      im[k] = (-gain * b) / (a * a + b * b);
    });
    return { re, im };
  };

const SPAN = { fromHz: 0.1, toHz: 1e6 };
const read = (response: Response, measure: Measure) =>
  new ResponseReader(response, SPAN).read(measure);

describe('readings off a response', () => {
  test('edge, peak and plateau of any second-order low-pass meet their closed forms', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 20_000, noNaN: true }),
        fc.double({ min: 0.4, max: 30, noNaN: true }),
        fc.double({ min: 0.1, max: 10, noNaN: true }),
        (f0, q, gain) => {
          const response = lowPass(f0, q, gain);
          const b = 1 - 1 / (2 * q * q);
          const edge = f0 * Math.sqrt(b + Math.sqrt(b * b + 10 ** 0.3 - 1));
          const found = read(response, {
            measure: 'edge',
            downDb: 3,
            side: 'upper',
            reference: { from: 'level', db: 20 * Math.log10(gain) },
          });
          expect(found.value / edge).toBeCloseTo(1, 8);
          expect(read(response, { measure: 'plateau' }).value).toBeCloseTo(
            20 * Math.log10(gain),
            1,
          );
          if (q > 0.8) {
            const peak = gain * (q / Math.sqrt(1 - 1 / (4 * q * q)));
            expect(read(response, { measure: 'peak-level' }).value).toBeCloseTo(
              20 * Math.log10(peak),
              8,
            );
            expect(
              read(response, { measure: 'peak-frequency' }).value / (f0 * Math.sqrt(b)),
            ).toBeCloseTo(1, 4);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  test('slope and phase', () => {
    const response = lowPass(100, 0.7);
    expect(read(response, { measure: 'slope', fromHz: 20_000, toHz: 40_000 }).value).toBeCloseTo(
      -12.04,
      2,
    );
    expect(read(response, { measure: 'phase', atHz: 100 }).value).toBeCloseTo(-90, 9);
    const two = (hz: Float64Array) => {
      const { re, im } = response(hz);
      return { re: re.map((r, k) => r * r - im[k] * im[k]), im: re.map((r, k) => 2 * r * im[k]) };
    };
    expect(read(two, { measure: 'phase', atHz: 10_000 }).value).toBeLessThan(-350);
  });

  test('what is not there is said plainly', () => {
    expect(() =>
      read(lowPass(100, 0.7), {
        measure: 'edge',
        downDb: 3,
        side: 'lower',
        reference: { from: 'plateau' },
      }),
    ).toThrow(/never falls 3 dB/);
  });
});

describe('adaptive sampling', () => {
  test('straight lines between the points stay within tolerance, even round a sharp notch', () => {
    const notch: Response = (hz) => {
      const re = new Float64Array(hz.length);
      const im = new Float64Array(hz.length);
      hz.forEach((f, k) => {
        const [a, b] = [1 - (f / 1000) ** 2, f / 1000 / 40];
        re[k] = (a * a) / (a * a + b * b);
        im[k] = (-a * b) / (a * a + b * b);
      });
      return { re, im };
    };
    const { frequenciesHz: x, re, im } = sampleResponse(notch, { fromHz: 20, toHz: 20_000 });
    const level = re.map((r, k) => levelDb(r, im[k]));
    expect(x.length).toBeLessThanOrEqual(400);
    for (let k = 0; k + 1 < x.length; k++) {
      const middle = notch(Float64Array.of(Math.sqrt(x[k] * x[k + 1])));
      const there = levelDb(middle.re[0], middle.im[0]);
      if (there > -30) expect(Math.abs(there - (level[k] + level[k + 1]) / 2)).toBeLessThan(0.1);
    }
  });

  test('phase is followed through whole turns', () => {
    const angles = Float64Array.from({ length: 50 }, (_, k) => -k * 40);
    const trace = {
      re: angles.map((d) => Math.cos((d * Math.PI) / 180)),
      im: angles.map((d) => Math.sin((d * Math.PI) / 180)),
    };
    unwrappedDegrees(trace).forEach((d, k) => expect(d).toBeCloseTo(angles[k], 9));
  });
});
