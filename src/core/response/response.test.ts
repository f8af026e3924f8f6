import fc from 'fast-check';
import { followedDegrees } from './phase';
import { readMeasure, ResponseReader, type Measure } from './readings';
import { sampleResponse } from './sample';
import { levelDb, type Response } from './response';

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
  readMeasure(new ResponseReader(response, { span: SPAN }), measure);

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
    ).toThrow(/never falls 3\sdB below its reference \(0\.00\sdB\), within 100\smHz to 1\sMHz/);
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
    followedDegrees(trace, [0]).forEach((d, k) => expect(d).toBeCloseTo(angles[k], 9));
  });
});
