import { AcAnalysis } from '../ac/ac';
import { Prepared } from '../ac/prepared';
import { ReedError } from '@/core/errors';
import type { Circuit } from '@/core/circuit/schema';
import { FrequencySolver } from '../linear/frequency-solver';
import { CarefulSolver } from '../linear/careful';
import { SOUND } from '../linear/trust';
import { RandomCircuits } from '../testing/random-circuits';
import { compileFrequencies } from './compile';

/** As many frequencies as make a compiled plan pay. */
const MANY = Float64Array.from({ length: 12_000 }, (_, k) => 20 * 1000 ** (k / 12_000));
const HZ = [1e-3, 1, 37, 1e3, 22e3, 1e6, 1e8];

/** Both twins of a circuit's plan, asked for everything; undefined where it has no plan. */
function twins(circuit: Circuit, transposedFor?: (size: number) => number) {
  const analysis = new AcAnalysis(circuit);
  const prepared = new Prepared(circuit);
  const omega = Float64Array.from(HZ, (hz) => 2 * Math.PI * hz);
  if (!prepared.plansFor(omega)) return undefined;
  const { matrix, rhs } = prepared;
  const { plan, program } = prepared.programFor('all');
  const unknown = transposedFor?.(matrix.size);
  const compiled = compileFrequencies(matrix, rhs, plan, program, unknown)!.of(matrix);
  const plain = new FrequencySolver(matrix, plan, { rhs, program, width: 8 });
  compiled.solve(omega, 0, omega.length);
  plain.solve(omega, 0, omega.length);
  return { analysis, prepared, omega, compiled, plain, unknown };
}

/** How far two lanes are apart, as a part of the larger one's size. */
function apart(
  a: { re: Float64Array; im: Float64Array; width: number },
  b: { re: Float64Array; im: Float64Array; width: number },
  size: number,
  k: number,
  j = k,
): number {
  let [off, most] = [0, 0];
  for (let i = 0; i < size; i++) {
    const [p, q] = [i * a.width + k, i * b.width + j];
    off = Math.max(off, Math.hypot(a.re[p] - b.re[q], a.im[p] - b.im[q]));
    most = Math.max(most, Math.hypot(b.re[q], b.im[q]));
  }
  return most > 0 ? off / most : off;
}

describe('a compiled plan and its plain twin', () => {
  test('agree on random circuits of every linear kind, and trip alike', () => {
    const random = new RandomCircuits(11);
    let [sound, doubtful] = [0, 0];
    for (let n = 0; n < 120; n++) {
      const circuit = random.linear();
      let both;
      try {
        both = twins(circuit, (size) => n % size);
      } catch (error) {
        expect(error).toBeInstanceOf(ReedError);
        continue;
      }
      if (!both) continue;
      const { compiled, plain, prepared, omega, unknown } = both;
      const exact = new CarefulSolver(both.analysis.exactMatrix());
      const { size } = prepared.matrix;
      const y = { re: new Float64Array(8 * size), im: new Float64Array(8 * size), width: 8 };
      plain.solveTransposed(unknown!, HZ.length, y.re, y.im);
      HZ.forEach((_, k) => {
        const [c, p] = [compiled.doubt[k], plain.doubt[k]];
        if (!(p <= SOUND)) {
          // Terms of several powers of omega are summed in one and compared in the other.
          expect(!(c <= SOUND / 4)).toBe(true);
          doubtful++;
          return;
        }
        expect(c).toBeLessThan(16 * p);
        // Values many decades apart lose digits by any order of pivots; scrutiny looks after those.
        const x = exact.solve(omega[k], prepared.rhs);
        if ('unknown' in x) return;
        const other = { re: plain.xRe, im: plain.xIm, width: 8 };
        if (apart(other, { ...x, width: 1 }, size, k, 0) > 1e-12) return;
        sound++;
        const own = { re: compiled.xRe, im: compiled.xIm, width: compiled.width };
        expect(apart(own, other, size, k)).toBeLessThan(1e-9);
        const ownY = { re: compiled.yRe, im: compiled.yIm, width: compiled.width };
        expect(apart(ownY, y, size, k)).toBeLessThan(1e-6);
      });
    }
    expect(sound).toBeGreaterThan(280);
    expect(doubtful).toBeGreaterThan(20);
  });

  test('what an analysis says does not change when it goes over to the compiled plan', () => {
    const random = new RandomCircuits(5);
    let compared = 0;
    const circuits = Array.from({ length: 10 }, () => random.linear());
    // Two in which only the compiled plan lost digits: a reciprocal, and another order of sums.
    const others = new RandomCircuits(21);
    for (let n = 0; n <= 1188; n++) {
      const circuit = others.linear();
      if (n === 325 || n === 1188) circuits.push(circuit);
    }
    for (const circuit of circuits) {
      let analysis: AcAnalysis;
      let nets: string[];
      let before, after;
      try {
        analysis = new AcAnalysis(circuit);
        nets = [...analysis.system.netIndex.keys()].slice(-2);
        before = analysis.solve({ frequenciesHz: HZ, probes: nets }).probes;
        // Enough is asked for it to pay.
        analysis.solve({ frequenciesHz: MANY, probes: nets });
        after = analysis.solve({ frequenciesHz: HZ, probes: nets }).probes;
      } catch (error) {
        expect(error).toBeInstanceOf(ReedError);
        continue;
      }
      const exact = new CarefulSolver(analysis.exactMatrix());
      for (let k = 0; k < HZ.length; k++) {
        const x = exact.solve(2 * Math.PI * HZ[k], analysis.rhs);
        if ('unknown' in x) continue;
        const most = Math.max(...x.re.map(Math.abs), ...x.im.map(Math.abs));
        for (const net of nets) {
          const unknown = analysis.unknownOf(net);
          const size = Math.hypot(x.re[unknown], x.im[unknown]);
          for (const { re, im } of [before[net], after[net]])
            expect(Math.hypot(re[k] - x.re[unknown], im[k] - x.im[unknown])).toBeLessThanOrEqual(
              1e-12 * size + 1e-24 * most,
            );
          compared++;
        }
      }
    }
    expect(compared).toBeGreaterThan(60);
  });
});
