import type { Landmark } from '../response/landmarks';
import { ONE, over, plus, scaled, times, type Complex } from '@/core/numeric/complex';

/** What a stage is for. A `network` has a response of its own, given with its topology. */
export const STAGE_KINDS = [
  'low-pass',
  'high-pass',
  'band-pass',
  'notch',
  'all-pass',
  'peak',
  'low-shelf',
  'high-shelf',
  'tilt',
  'gain',
  'attenuator',
  'network',
] as const;
export type StageKind = (typeof STAGE_KINDS)[number];

/** A pole pair, or one real pole where `q` is absent. */
export interface PoleFigure {
  f0Hz: number;
  q?: number;
}

/** What a stage does. Which figures it has follows from its kind and order. */
export interface StageFigures {
  /** Corner, centre, or for a stage without either the frequency its values are chosen at. */
  f0Hz: number;
  /** Quality factor of a second-order stage. */
  q?: number;
  /** Signed gain, volts per volt: of the pass band; at the centre of a band-pass; far from a peak. */
  gain: number;
  /** A notch whose zeros lie elsewhere than its poles: their frequency. */
  zeroHz?: number;
  /** Peak, shelf, tilt: level at the centre or on the shelf over that outside, volts per volt. */
  boost?: number;
  /** Level left at the bottom of a notch, over the gain. */
  depth?: number;
  /** Every pole of a stage of third or higher order; `f0Hz` is then their geometric mean. */
  poles?: PoleFigure[];
  /** Zeros on the frequency axis of such a stage. */
  zerosHz?: number[];
  /** Figures that only this topology has, by name. */
  own?: Readonly<Record<string, number>>;
}

/**
 * The response that figures promise, at one frequency. With s = j f/f0:
 *
 *   low-pass    H / (1 + s/Q + s^2)            or H / (1 + s)
 *   high-pass   H s^2 / (1 + s/Q + s^2)        or H s / (1 + s)
 *   band-pass   H (s/Q) / (1 + s/Q + s^2)
 *   notch       H (1 + d s/Q + (f0/fz)^2 s^2) / (1 + s/Q + s^2), d the depth left
 *   all-pass    H (1 - s/Q + s^2) / (1 + s/Q + s^2)   or H (1 - s) / (1 + s)
 *   peak        H (1 + s A/Q + s^2) / (1 + s/(A Q) + s^2), A = sqrt(boost): Q is the centre over the
 *               width at half the height in dB, whether it lifts or cuts
 *   low shelf   H (s + sqrt G) / (s + 1/sqrt G) with G = boost: half its height, in dB, at f0
 *   high shelf  H (1 + s sqrt G) / (1 + s/sqrt G)
 *   tilt        a high shelf about unity: H (1 + s sqrt G) / (s + sqrt G)
 *
 * Stages of higher order multiply such sections.
 */
export function standardTransfer(kind: StageKind, figures: StageFigures, hz: number): Complex {
  const { f0Hz, q, gain, poles } = figures;
  if (poles) return manyPoles(kind, figures, poles, hz);
  const x = hz / f0Hz;
  const s: Complex = { re: 0, im: x };
  const second = (b: number, a = 1): Complex => ({ re: 1 - a * x * x, im: b * x });
  const down = q === undefined ? plus(ONE, s) : second(1 / q);
  const g = Math.sqrt(figures.boost ?? 1);
  const up = (): Complex => {
    switch (kind) {
      case 'low-pass':
        return ONE;
      case 'high-pass':
        return q === undefined ? s : { re: -x * x, im: 0 };
      case 'band-pass':
        return { re: 0, im: x / q! };
      case 'notch':
        return second((figures.depth ?? 0) / q!, (f0Hz / (figures.zeroHz ?? f0Hz)) ** 2);
      case 'all-pass':
        return q === undefined ? { re: 1, im: -x } : second(-1 / q);
      default:
        return ONE;
    }
  };
  switch (kind) {
    case 'peak':
      return scaled(over(second(g / q!), second(1 / (g * q!))), gain);
    case 'low-shelf':
      return scaled(over({ re: g, im: x }, { re: 1 / g, im: x }), gain);
    case 'high-shelf':
      return scaled(over({ re: 1, im: x * g }, { re: 1, im: x / g }), gain);
    case 'tilt':
      return scaled(over({ re: 1, im: x * g }, { re: g, im: x }), gain);
    case 'gain':
    case 'attenuator':
      return { re: gain, im: 0 };
    default:
      return scaled(over(up(), down), gain);
  }
}

/** Where the response of figures bends most sharply: its poles and zeros. */
export function landmarksOf(kind: StageKind, figures: StageFigures): Landmark[] {
  const { f0Hz, q, zeroHz, boost = 1, depth, poles, zerosHz = [] } = figures;
  const sharp = (hz: number): Landmark => ({ hz, q: SHARPEST });
  if (poles) return [...poles.map((p) => ({ hz: p.f0Hz, q: p.q ?? 0.5 })), ...zerosHz.map(sharp)];
  if (q === undefined) return [];
  // A peak's zeros are as much wider than its poles as it lifts.
  const own: Landmark[] = [{ hz: f0Hz, q: q * Math.max(Math.sqrt(boost), 1 / Math.sqrt(boost)) }];
  if (kind === 'notch') own.push(depth ? { hz: f0Hz, q: q / depth } : sharp(zeroHz ?? f0Hz));
  return own;
}

/** Looked at as closely as this, a zero on the axis is seen well enough. */
const SHARPEST = 500;

/** Low-pass or high-pass sections multiplied, with pairs of zeros on the axis. */
function manyPoles(
  kind: StageKind,
  { gain, zerosHz = [] }: StageFigures,
  poles: readonly PoleFigure[],
  hz: number,
): Complex {
  let h: Complex = { re: gain, im: 0 };
  const ratio = (f: number) => (kind === 'high-pass' ? -f / hz : hz / f);
  for (const { f0Hz, q } of poles) {
    const x = ratio(f0Hz);
    h = over(h, q === undefined ? { re: 1, im: x } : { re: 1 - x * x, im: x / q });
  }
  for (const z of zerosHz) h = times(h, { re: 1 - ratio(z) ** 2, im: 0 });
  return h;
}

export const orderOfPoles = (poles: readonly PoleFigure[]): number =>
  poles.reduce((n, p) => n + (p.q === undefined ? 1 : 2), 0);

/** Geometric mean of the poles' frequencies: where a stage of many poles is said to stand. */
export function centreOfPoles(poles: readonly PoleFigure[]): number {
  const sum = poles.reduce((t, p) => t + Math.log(p.f0Hz) * (p.q === undefined ? 1 : 2), 0);
  return Math.exp(sum / orderOfPoles(poles));
}
