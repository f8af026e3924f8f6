import fc from 'fast-check';
import { LaneArithmetic, type Lanes } from './lane-arithmetic';
import { Code, moduleOf } from './wasm';

type Function = (a: LaneArithmetic, x: Lanes, y: Lanes) => Lanes;

/** A function of two numbers as a module, both lanes looked at. */
function built(f: Function): (x: number, y?: number) => number {
  const code = new Code([]);
  const arithmetic = new LaneArithmetic(code);
  const result = f(arithmetic, { at: 0 }, { at: 16 });
  code.number(0);
  arithmetic.push(result);
  code.storePair(32);
  const memory = new WebAssembly.Memory({ initial: 1 });
  const module = new WebAssembly.Module(moduleOf([{ name: 'f', parameters: [], code }]));
  const { exports } = new WebAssembly.Instance(module, { env: { memory } });
  const view = new Float64Array(memory.buffer);
  return (x, y = 0) => {
    view.set([x, 0.25, y, 0.5]);
    (exports.f as () => void)();
    const [first] = [view[4]];
    view.set([0.25, x, 0.5, y]);
    (exports.f as () => void)();
    expect(view[5]).toBe(first);
    return first;
  };
}

/** How far apart, as a part of what it should be. */
const off = (got: number, wanted: number): number =>
  Math.abs(got - wanted) / Math.max(Math.abs(wanted), Number.MIN_VALUE);

describe('the arithmetic of laws, two at a time', () => {
  const within = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true });
  const many = { numRuns: 3000 };

  test('exp(x) and exp(x) - 1 keep their digits from the smallest to the largest', () => {
    const expm1 = built((a, x) => a.expm1(x));
    const small = fc.tuple(within(-18, -1), fc.boolean()).map(([e, up]) => (up ? 1 : -1) * 10 ** e);
    fc.assert(
      fc.property(fc.oneof(within(-40, 40), within(-699, 700), small), (x) => {
        expect(off(expm1(x), Math.expm1(x))).toBeLessThan(2e-15);
      }),
      many,
    );
    const exp = built((a, x) => a.exp(x));
    fc.assert(
      fc.property(fc.oneof(within(-40, 40), within(-699, 700), small), (x) => {
        expect(off(exp(x), Math.exp(x))).toBeLessThan(2e-15);
      }),
      many,
    );
    expect(expm1(0)).toBe(0);
    expect(expm1(-1e9)).toBe(-1);
    expect(expm1(NaN)).toBeNaN();
  });

  test('logarithm', () => {
    const log = built((a, x) => a.log(x));
    fc.assert(
      fc.property(within(-300, 300), (e) => {
        expect(off(log(10 ** e), Math.log(10 ** e))).toBeLessThan(2e-15);
      }),
      many,
    );
    fc.assert(
      fc.property(within(0.5, 2), (x) => {
        expect(Math.abs(log(x) - Math.log(x))).toBeLessThan(3e-16);
      }),
      many,
    );
  });

  test('hyperbolic tangent', () => {
    const tanh = built((a, x) => a.tanh(x));
    fc.assert(
      fc.property(fc.oneof(within(-30, 30), within(-1e-3, 1e-3)), (x) => {
        expect(off(tanh(x), Math.tanh(x))).toBeLessThan(3e-15);
      }),
      many,
    );
    expect(tanh(1e300)).toBe(1);
    expect(tanh(-1e300)).toBe(-1);
  });

  test('the rest is what it says', () => {
    const all: [Function, (x: number, y: number) => number][] = [
      [(a, x, y) => a.min(x, y), Math.min],
      [(a, x, y) => a.max(x, y), Math.max],
      [(a, x, y) => a.div(a.sub(x, y), a.add(x, y)), (x, y) => (x - y) / (x + y)],
      [(a, x, y) => a.sqrt(a.abs(a.mul(x, y))), (x, y) => Math.sqrt(Math.abs(x * y))],
      [(a, x, y) => a.neg(a.ifAbove(x, y, x, a.number(7))), (x, y) => -(x > y ? x : 7)],
    ];
    for (const [law, wanted] of all) {
      const f = built(law);
      for (const [x, y] of [
        [1.5, 2],
        [-3, 0.25],
        [4, -4.5],
      ])
        expect(f(x, y)).toBe(wanted(x, y));
    }
  });
});
