import type { DelayTrace } from '@/core/lenses/delay';
import type { Take } from '@/core/library/take';
import type { SpreadResult } from '@/core/spread/spread';
import type { Layer } from '@/core/sheet/evaluate';
import type { ForbiddenLevel } from '@/core/sheet/mask';
import type { LayerTrace } from '@/core/sheet/solved-way';
import { delayAxis, levelAxis, phaseAxis, valueAt, type ValueAxis } from '@/ui/chart/axis';
import {
  valuesOf,
  type BandLayer,
  type ChartLayer,
  type DotsLayer,
  type LayerLook,
  type LineLayer,
} from '@/ui/chart/layers';
import { lookOf } from './look-of';

/*
 * What a lens over frequency draws: layers of a sheet, takes and wishes as layers of a picture.
 */

export type FrequencyLensName = 'level' | 'phase' | 'delay';
export type Delays = ReadonlyMap<Layer['id'], DelayTrace>;

export interface Curve {
  x: ArrayLike<number>;
  y: ArrayLike<number>;
}

export const lineOf = (id: string, look: LayerLook, curve: Curve, name = id): LineLayer => ({
  kind: 'line',
  id,
  name,
  look,
  ...curve,
});

/** The curve of a trace in one of the lenses that show what is evaluated anyway. */
export function curveOf(
  lens: FrequencyLensName,
  trace: Pick<LayerTrace, 'frequenciesHz' | 'levelDb' | 'phaseDegrees'>,
  wrapped: boolean,
): Curve {
  const { frequenciesHz, levelDb, phaseDegrees } = trace;
  if (lens === 'level') return { x: frequenciesHz, y: levelDb };
  return wrapped
    ? wrappedCurve(frequenciesHz, phaseDegrees)
    : { x: frequenciesHz, y: phaseDegrees };
}

/** Phase between -180 and 180 degrees; a gap (no number) where it leaves one end and enters the other. */
function wrappedCurve(frequenciesHz: Float64Array, phaseDegrees: Float64Array): Curve {
  const x: number[] = [];
  const y: number[] = [];
  let before = NaN;
  phaseDegrees.forEach((degrees, k) => {
    const turns = Math.round(degrees / 360);
    if (k > 0 && turns !== before) {
      x.push(frequenciesHz[k]);
      y.push(NaN);
    }
    x.push(frequenciesHz[k]);
    y.push(degrees - 360 * turns);
    before = turns;
  });
  return { x, y };
}

/** Thin dashes over the thick line, so that both are seen where they agree. */
const DEPTH: readonly LayerLook[] = ['keep', 'built', 'ideal'];

/** The layers of a sheet as curves, the deepest first. */
export function sheetLayers(
  lens: FrequencyLensName,
  layers: readonly Layer[],
  delays: Delays | null,
  wrapped: boolean,
): LineLayer[] {
  return layers
    .flatMap(({ id, trace }) => {
      if (lens !== 'delay') return lineOf(id, lookOf(id), curveOf(lens, trace, wrapped));
      const delay = delays?.get(id);
      return delay ? lineOf(id, lookOf(id), { x: delay.frequenciesHz, y: delay.seconds }) : [];
    })
    .sort((a, b) => DEPTH.indexOf(a.look) - DEPTH.indexOf(b.look));
}

/** What was measured, as far as a lens shows it. */
export function takeLayers(
  lens: FrequencyLensName,
  takes: readonly Take[],
  wrapped: boolean,
): DotsLayer[] {
  return takes.flatMap(({ id, name, frequenciesHz: x, levelDb, phaseDegrees }) => {
    const y = lens === 'level' ? levelDb : lens === 'phase' ? phaseDegrees : undefined;
    if (!y) return [];
    const within = wrapped && lens === 'phase' ? y.map((d) => d - 360 * Math.round(d / 360)) : y;
    return [{ kind: 'dots', id: `take ${id}`, name, look: 'take', x, y: within }];
  });
}

/** What nine boards in ten stay within, as far as a lens shows it. */
export function spreadLayer(
  lens: FrequencyLensName,
  { levels, phases }: Pick<SpreadResult, 'levels' | 'phases'>,
  wrapped: boolean,
): BandLayer[] {
  const band = lens === 'level' ? levels : lens === 'phase' ? phases : undefined;
  if (!band) return [];
  const { hz: x, p5: low, p95: high } = band;
  const layer: BandLayer = {
    kind: 'band',
    id: 'spread',
    name: 'spread',
    look: 'spread',
    x,
    low,
    high,
  };
  return lens === 'phase' && wrapped ? wrappedBand(layer) : [layer];
}

/** A band of phases once for each turn that it enters, each as far as it lies within that turn. */
function wrappedBand(band: BandLayer): BandLayer[] {
  const [low, high] = [Float64Array.from(band.low), Float64Array.from(band.high)];
  const turnOf = (degrees: number) => Math.round(degrees / 360);
  const first = turnOf(low.reduce((a, b) => Math.min(a, b), Infinity));
  const last = turnOf(high.reduce((a, b) => Math.max(a, b), -Infinity));
  return Array.from({ length: last - first + 1 }, (_, i) => {
    const [from, to] = [360 * (first + i) - 180, 360 * (first + i) + 180];
    const isWithin = low.map((_, k) => Number(low[k] < to && high[k] > from));
    const within = (values: Float64Array) =>
      values.map((v, k) =>
        isWithin[k] ? Math.min(to, Math.max(from, v)) - 360 * (first + i) : NaN,
      );
    return { ...band, id: `spread ${first + i}`, low: within(low), high: within(high) };
  });
}

/** What the curves should keep out of. */
export const wantedLayers = (regions: readonly ForbiddenLevel[]): BandLayer[] =>
  regions.map(({ fromHz, toHz, above, below }, i) => ({
    kind: 'band',
    id: `wanted ${i}`,
    name: 'wanted',
    look: 'wanted',
    x: [fromHz, toHz],
    low: above === undefined ? [-Infinity, -Infinity] : [above, above],
    high: below === undefined ? [Infinity, Infinity] : [below, below],
  }));

/** Delays where there is a signal to be delayed: beside a zero they say nothing and would set the scale. */
function audibleDelays(lines: readonly LineLayer[], layers: readonly Layer[]): number[][] {
  return lines.flatMap(({ id, x, y }) => {
    const trace = layers.find((l) => l.id === id)?.trace;
    if (!trace) return [];
    const top = trace.levelDb.reduce((a, b) => Math.max(a, b), -400);
    return [
      Array.from(y).filter((_, k) => valueAt(trace.frequenciesHz, trace.levelDb, x[k]) > top - 30),
    ];
  });
}

/** The upright axis that has room for what is drawn. */
export function axisFor(
  lens: FrequencyLensName,
  lines: readonly LineLayer[],
  measured: readonly ChartLayer[],
  layers: readonly Layer[],
): ValueAxis {
  if (lens === 'delay') return delayAxis(audibleDelays(lines, layers));
  const values = valuesOf([...lines, ...measured]);
  return lens === 'level' ? levelAxis(values) : phaseAxis(values);
}
