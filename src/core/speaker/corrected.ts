import type { AcAnalysis } from '@/core/analysis/ac/ac';
import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { minus, over, times, type Complex } from '@/core/numeric/complex';
import { AMP_NET } from './document';
import { equivalentAt } from './equivalent';
import type { Electrical } from './solved-speaker';
import { DRIVE } from './speaker-circuit';
import { impedanceAt, isMeasuredAt, type PreparedUnit } from './unit';

/** A unit between two nets of the circuit. */
export interface Port {
  unit: PreparedUnit;
  plus: string;
  minus: string;
}

/**
 * The voltages of a circuit in which fitted circuits stand for measured impedances, corrected to the
 * measured ones. Each draws (Ymeasured - Yfitted) v more: with Z what a current into one such port
 * does to the voltage of another, the true voltages there are (1 + Z dY)^-1 times the fitted ones, and
 * everything else follows from the currents that are drawn more
 * (A. S. Householder, "The Theory of Matrices in Numerical Analysis", 1964, section 5.1).
 */
export function corrected(
  plain: Electrical,
  analysis: AcAnalysis,
  ports: readonly Port[],
): Electrical {
  const { frequenciesHz } = plain;
  const measured = ports.flatMap((port, i) => (port.unit.impedance ? [i] : []));
  if (measured.length === 0) return plain;
  const amp = copy(plain.amp);
  const drawn = plain.drawn && copy(plain.drawn);
  const across = plain.across.map(copy);
  const transfer = new Transfers(analysis, frequenciesHz);
  const outputs = ports.map(
    ({ plus, minus: end }) => [transfer.to(plus), transfer.to(end)] as const,
  );
  const toAmp = transfer.to(AMP_NET);
  const toDrive = drawn && transfer.toCurrent(DRIVE);
  for (let k = 0; k < frequenciesHz.length; k++) {
    const here = measured.filter((i) => isMeasuredAt(ports[i].unit, frequenciesHz[k]));
    if (here.length === 0) continue;
    /** What a unit of current taken out of port `q` does to a solution. */
    const drop = (to: Rows | undefined, q: number): Complex =>
      minus(transfer.at(to, ports[q].minus, k), transfer.at(to, ports[q].plus, k));
    const dropAcross = (p: number, q: number): Complex =>
      minus(drop(outputs[p][0], q), drop(outputs[p][1], q));
    const more = here.map((i) => moreAdmittance(ports[i].unit, frequenciesHz[k]));
    // (1 + Z dY) v = v0, and Z = -drop.
    const rows = here.map((p, r) =>
      here.map((q, c) => {
        const z = times(dropAcross(p, q), more[c]);
        return { re: (r === c ? 1 : 0) - z.re, im: -z.im };
      }),
    );
    const v = solveComplex(
      rows,
      here.map((p) => at(plain.across[p], k)),
    );
    const taken = v.map((x, c) => times(x, more[c]));
    const add = (trace: ComplexTrace, by: (q: number) => Complex, sign = 1) =>
      here.forEach((q, c) => {
        const change = times(by(q), taken[c]);
        trace.re[k] += sign * change.re;
        trace.im[k] += sign * change.im;
      });
    across.forEach((trace, p) => add(trace, (q) => dropAcross(p, q)));
    add(amp, (q) => drop(toAmp, q));
    if (drawn) add(drawn, (q) => drop(toDrive, q), -1);
  }
  return { frequenciesHz, amp, ...(drawn ? { drawn } : {}), across };
}

/** By how much the measured admittance of a unit exceeds that of the circuit that stands for it. */
function moreAdmittance(unit: PreparedUnit, hz: number): Complex {
  const is = over(ONE, impedanceAt(unit, hz));
  const fitted = over(ONE, equivalentAt(unit.impedance!.equivalent, hz));
  return minus(is, fitted);
}

const ONE: Complex = { re: 1, im: 0 };

/** What a unit put into each equation does to one unknown, by frequency. */
type Rows = ComplexTrace[];

class Transfers {
  private readonly found = new Map<number, Rows>();

  constructor(
    private readonly analysis: AcAnalysis,
    private readonly frequenciesHz: Float64Array,
  ) {}

  to(net: string): Rows | undefined {
    return this.of(this.analysis.unknownOf(net));
  }

  toCurrent(part: string): Rows | undefined {
    return this.of(this.analysis.system.branchIndex.get(part)!);
  }

  /** What a unit of current into a net does. */
  at(rows: Rows | undefined, net: string, k: number): Complex {
    const row = this.analysis.unknownOf(net);
    return rows && row >= 0 ? at(rows[row], k) : { re: 0, im: 0 };
  }

  private of(unknown: number): Rows | undefined {
    if (unknown < 0) return undefined;
    let rows = this.found.get(unknown);
    if (!rows) {
      const count = this.frequenciesHz.length;
      rows = this.analysis.system.unknowns.map(() => ({
        re: new Float64Array(count),
        im: new Float64Array(count),
      }));
      const into = rows;
      this.analysis.eachTransfer(
        unknown,
        this.frequenciesHz,
        ({ from, count: n, width, yRe, yIm }) => {
          into.forEach(({ re, im }, row) => {
            re.set(yRe.subarray(row * width, row * width + n), from);
            im.set(yIm.subarray(row * width, row * width + n), from);
          });
        },
      );
      this.found.set(unknown, rows);
    }
    return rows;
  }
}

const at = ({ re, im }: ComplexTrace, k: number): Complex => ({ re: re[k], im: im[k] });
const copy = ({ re, im }: ComplexTrace): ComplexTrace => ({ re: re.slice(), im: im.slice() });

/** A few complex equations, by elimination with row pivoting. */
function solveComplex(rows: readonly (readonly Complex[])[], rhs: readonly Complex[]): Complex[] {
  const n = rhs.length;
  const a = rows.map((row, i) => [...row, rhs[i]]);
  const heavy = ({ re, im }: Complex) => re * re + im * im;
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++) if (heavy(a[i][k]) > heavy(a[best][k])) best = i;
    [a[k], a[best]] = [a[best], a[k]];
    for (let i = k + 1; i < n; i++) {
      const factor = over(a[i][k], a[k][k]);
      for (let j = k; j <= n; j++) a[i][j] = minus(a[i][j], times(factor, a[k][j]));
    }
  }
  const x = new Array<Complex>(n);
  for (let k = n - 1; k >= 0; k--) {
    let sum = a[k][n];
    for (let j = k + 1; j < n; j++) sum = minus(sum, times(a[k][j], x[j]));
    x[k] = over(sum, a[k][k]);
  }
  return x;
}
