import { faultCircuit } from '../testing/faults';
import { polesAndZeros } from './poles';

const near = (got: number, wanted: number, part = 1e-6) =>
  expect(Math.abs(got / wanted - 1)).toBeLessThan(part);

describe('circuits whose poles were got wrong', () => {
  test('an op-amp without feedback is refused: nothing determines its output', () => {
    expect(() => polesAndZeros(faultCircuit('poles-no-feedback'), 'out')).toThrow(
      /“(out|x|A1)”.*feedback/,
    );
  });

  test('a pole far out is found beside a slow one', () => {
    const { poles, verdict } = polesAndZeros(faultCircuit('poles-fast-pole'), 'n1');
    expect(poles.filter((p) => p.re !== 0 || p.im !== 0)).toHaveLength(2);
    near(poles[poles.length - 2].re, -29312, 1e-3);
    near(poles[poles.length - 1].re, -9.62e9, 1e-3);
    expect(verdict).toBe('stable');
  });

  test('a fast pole in the right half plane makes a circuit unstable', () => {
    const { poles, verdict } = polesAndZeros(faultCircuit('poles-unstable-pole'), 'o2');
    expect(verdict).toBe('unstable');
    near(poles[poles.length - 1].re, 1.25e9, 1e-2);
  });

  test.each([
    ['poles-at-zero', 'n3'],
    ['poles-no-bias-path', 'a'],
  ])('%s: a pole at zero, and what has no path', (name, net) => {
    const { poles, verdict, atZero } = polesAndZeros(faultCircuit(name), net);
    expect(poles.filter((p) => p.re === 0 && p.im === 0)).toHaveLength(1);
    expect(verdict).toBe('marginal');
    expect(atZero).toMatch(new RegExp(`“(${net}|n10|A1|V1)”`));
  });

  test('six equal poles are one that counts six times', () => {
    const { poles, poleFigures } = polesAndZeros(faultCircuit('poles-equal-real'), 'out');
    expect(poles).toHaveLength(6);
    poles.forEach((p) => {
      near(p.re, -1e4, 1e-12);
      expect(p.im).toBe(0);
    });
    expect(poleFigures.map((f) => f.multiplicity)).toEqual([6]);
  });
});
