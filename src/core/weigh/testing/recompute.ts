import { AcAnalysis } from '@/core/analysis/ac/ac';
import { Adjoint } from '@/core/analysis/sensitivity/adjoint';
import { designCircuit } from '@/core/design/circuit';
import { designAsk } from '@/core/design/design';
import type { Band } from '@/core/response/landmarks';
import { findPeak } from '@/core/numeric/root';
import { seededRandom } from '@/core/random';
import type { WeighRow } from '../weigh';

/*
 * The figures of a row by another way: thousands of even points, the best of them refined by golden
 * section. Slow, and simple enough to be believed.
 */

type Curve = (hz: Float64Array) => ArrayLike<number>;

const dense = ({ fromHz, toHz }: Band, points: number) =>
  Float64Array.from({ length: points }, (_, k) => fromHz * (toHz / fromHz) ** (k / (points - 1)));

function highest(curve: Curve, bands: readonly Band[], points: number): number {
  let best = -Infinity;
  for (const band of bands) {
    const x = dense(band, points);
    const y = Array.from(curve(x));
    const at = y.reduce((b, v, k) => (v > y[b] ? k : b), 0);
    best = Math.max(best, y[at]);
    const [a, b] = [x[Math.max(0, at - 1)], x[Math.min(points - 1, at + 1)]].map(Math.log);
    const u = findPeak((v) => curve(Float64Array.of(Math.exp(v)))[0], a, b, 1e-10);
    best = Math.max(best, curve(Float64Array.of(Math.exp(u)))[0]);
  }
  return best;
}
const lowest = (curve: Curve, bands: readonly Band[], points: number) =>
  -highest((hz) => Float64Array.from(curve(hz), (y) => -y), bands, points);

const levelOf =
  (analysis: AcAnalysis, net = 'out'): Curve =>
  (frequenciesHz) => {
    const { re, im } = analysis.solve({ frequenciesHz, probes: [net] }).probes[net];
    return re.map((x, k) => 20 * Math.log10(Math.max(1e-20, Math.hypot(x, im[k]))));
  };

/** The columns that follow from the exact response of the row's own ask. */
export function recompute({ ask, judged }: WeighRow, points = 10_000) {
  const design = designAsk(ask);
  const { circuit } = designCircuit(design, 'ideal');
  const analysis = new AcAnalysis(circuit);
  const level = levelOf(analysis);
  const { pass, stop } = judged;
  const top = highest(level, pass, points);
  const adjoint = new Adjoint(analysis, 'out');
  const delay: Curve = (hz) => adjoint.slopes(hz).groupDelaySeconds;
  const coarse = Math.ceil(points / 5);
  const worst = adjoint
    .parts(Float64Array.of(1000))
    .map(({ part }, i) => ({
      part,
      most: highest(
        (frequenciesHz) => adjoint.parts(frequenciesHz)[i].levelDb.map((db) => Math.abs(db) / 100),
        pass,
        coarse,
      ),
    }))
    .reduce((a, b) => (b.most > a.most ? b : a));
  const all = allOf(ask);
  const nets = circuit.parts.flatMap((p) =>
    p.kind === 'op-amp' ? [p.out] : p.kind === 'transconductor' ? [p.from, p.to] : [],
  );
  const inner = [...new Set(nets)].filter((n) => n !== '0' && n !== 'out');
  const peakOf = (net: string) => highest(levelOf(analysis, net), [all], points);
  return {
    rippleDb: top - lowest(level, pass, points),
    attenuationDb: stop.length > 0 ? top - highest(level, stop, points) : null,
    delayVariationSeconds: highest(delay, pass, coarse) - lowest(delay, pass, coarse),
    sensitivity: worst.most,
    innerPeakDb:
      nets.length === 0 ? null : Math.max(0, ...inner.map((n) => peakOf(n) - peakOf('out'))),
    offAt: (gainBandwidthHz: number) => {
      const slow = new AcAnalysis(
        designCircuit(design, { gainBandwidthHz, dcGainDb: 120 }).circuit,
      );
      const off: Curve = (hz) => {
        const [a, b] = [levelOf(slow)(hz), level(hz)];
        return hz.map((_, k) => Math.abs(a[k] - b[k]));
      };
      return highest(off, pass, coarse);
    },
  };
}

const allOf = (ask: WeighRow['ask']): Band => {
  const l = ask.limits;
  const centre = (a: number, b: number) => Math.sqrt(a * b);
  const hz =
    l === undefined
      ? (ask.edgeHz ?? ask.centreHz ?? centre(ask.lowerHz!, ask.upperHz!))
      : 'passHz' in l
        ? l.passHz
        : centre(l.passLowerHz, l.passUpperHz);
  return { fromHz: hz / 50, toHz: hz * 50 };
};

/** Boards of a row that keep to an ask without limits: within 1 dB of the exact pass band. */
export function recomputeYield({ ask, judged }: WeighRow, boards: number, points: number): number {
  const { circuit } = designCircuit(designAsk(ask), 'ideal');
  const kinds = new Map(circuit.parts.map((p) => [p.id, p.kind]));
  const analysis = new AcAnalysis(circuit);
  const nominal = Float64Array.from(analysis.values);
  const random = seededRandom(1);
  const x = Float64Array.from(judged.pass.flatMap((b) => [...dense(b, points)]));
  const levels = (a: AcAnalysis) => levelOf(a)(x);
  const exact = levels(analysis);
  const centre =
    ask.kind === 'notch' ? (ask.centreHz ?? Math.sqrt(ask.lowerHz! * ask.upperHz!)) : 0;
  const flatDb = centre > 0 ? levelOf(analysis)(Float64Array.of(centre / 1e5))[0] : 0;
  let good = 0;
  for (let board = 0; board < boards; board++) {
    analysis.system.parameters.forEach(({ part }, i) => {
      const kind = kinds.get(part);
      const tolerance =
        kind === 'resistor'
          ? 0.01
          : kind === 'capacitor' || kind === 'inductor' || kind === 'transconductor'
            ? 0.05
            : 0;
      analysis.values[i] = nominal[i] * (1 + tolerance * (2 * random() - 1));
    });
    analysis.update();
    const found = levels(analysis);
    let kept = true;
    for (let k = 0; k < x.length; k++) if (Math.abs(found[k] - exact[k]) > 1) kept = false;
    if (centre > 0) kept &&= flatDb - levelOf(analysis)(Float64Array.of(centre))[0] >= 20;
    if (kept) good++;
  }
  return good / boards;
}
