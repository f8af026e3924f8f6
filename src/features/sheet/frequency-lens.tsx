'use client';

import { useMemo } from 'react';
import type { DelayTrace } from '@/core/lenses/delay';
import type { Layer } from '@/core/sheet/evaluate';
import type { LayerTrace } from '@/core/sheet/solved-way';
import { followsAsk } from '@/core/sheet/make';
import { forbiddenLevels, passLevelDb } from '@/core/sheet/mask';
import type { Sheet } from '@/core/sheet/schema';
import { layerName } from '@/core/sheet/layer-name';
import { usePreferences } from '@/store/preferences';
import { delayAxis, levelAxis, phaseAxis, valueAt, type ValueAxis } from '@/ui/chart/axis';
import type { ChartContent, ChartLayer, LayerLook } from '@/ui/chart/chart-model';
import { Cursor } from '@/ui/chart/cursor';
import { LensChart } from '@/ui/chart/lens-chart';
import { LensState } from './lens-state';
import { setUi, useUi } from './ui-state';
import { useLens } from './use-lens';
import { usePointedVariation } from './use-evaluation';

export type FrequencyLensName = 'level' | 'phase' | 'delay';

const TITLES = { level: 'Level', phase: 'Phase', delay: 'Group delay' } as const;
const UNITS = { level: 'dB', phase: '°', delay: 's' } as const;

export function lookOf(id: Layer['id']): LayerLook {
  return id === 'ideal' || id === 'built' ? id : 'keep';
}

interface Props {
  sheet: Sheet;
  layers: readonly Layer[];
}

/** Level or phase, from the evaluation that is always there. */
export function LevelOrPhase({ lens, ...props }: Props & { lens: 'level' | 'phase' }) {
  return <Picture lens={lens} delays={null} {...props} />;
}

/** Delay is computed only while it is looked at. */
export function DelayLens(props: Props) {
  const { picture, problem, stale } = useLens(props.sheet, { lens: 'delay' });
  const delays = useMemo(
    () => new Map(picture?.layers.map(({ id, value }) => [id, value]) ?? []),
    [picture],
  );
  return (
    <LensState problem={problem ?? picture?.problems[0] ?? null} stale={stale}>
      <Picture lens="delay" delays={delays} {...props} />
    </LensState>
  );
}

type Delays = ReadonlyMap<Layer['id'], DelayTrace>;

function Picture({
  lens,
  delays,
  sheet,
  layers,
}: Props & { lens: FrequencyLensName; delays: Delays | null }) {
  const mark = usePreferences((p) => p.mark);
  const cursorHz = useUi((s) => s.cursorHz);
  const pointed = useUi((s) => s.pointedPart);
  const wrapped = useUi((s) => s.phaseWrapped);
  const variation = usePointedVariation(lens === 'delay' ? null : sheet, pointed);
  const { fromHz, toHz } = sheet.view;
  const curves = useCurves(lens, layers, delays, wrapped);
  const content = useContent(sheet, lens, layers, curves, variation, wrapped);
  const axis = useSteadyAxis(lens, curves, layers);
  return (
    <LensChart
      title={`${TITLES[lens]} over frequency`}
      fromHz={fromHz}
      toHz={toHz}
      axis={axis}
      unit={UNITS[lens]}
      content={content}
    >
      {(box) => (
        <Cursor
          box={box}
          fromHz={fromHz}
          toHz={toHz}
          atHz={cursorHz}
          mark={mark}
          rows={
            cursorHz === null
              ? []
              : layers.map(({ id, trace }) => {
                  const delay = delays?.get(id);
                  const levelDb = valueAt(trace.frequenciesHz, trace.levelDb, cursorHz);
                  return {
                    name: layerName(id, sheet),
                    look: lookOf(id),
                    levelDb,
                    volts: sourceVolts(id, sheet) * 10 ** (levelDb / 20),
                    phaseDegrees: valueAt(trace.frequenciesHz, trace.phaseDegrees, cursorHz),
                    ...(delay
                      ? { delaySeconds: valueAt(delay.frequenciesHz, delay.seconds, cursorHz) }
                      : {}),
                  };
                })
          }
          onMove={(hz) => setUi({ cursorHz: hz })}
          onPin={(hz) => setUi({ cursorHz: hz, pinning: true })}
        />
      )}
    </LensChart>
  );
}

/** The source's voltage in a layer; a keep has the one it was kept with. */
function sourceVolts(id: Layer['id'], sheet: Sheet): number {
  const keep = sheet.keeps.find((k) => `keep:${k.id}` === id);
  return (keep?.design ?? sheet).source.volts;
}

interface Curve {
  x: Float64Array;
  y: Float64Array;
}

/** The curve of a trace in one of the lenses. */
function curveOf(lens: FrequencyLensName, trace: LayerTrace, wrapped: boolean): Curve {
  if (lens === 'level') return { x: trace.frequenciesHz, y: trace.levelDb };
  return wrapped ? wrappedCurve(trace) : { x: trace.frequenciesHz, y: trace.phaseDegrees };
}

/** Phase between -180 and 180 degrees; a gap (no number) where it leaves one end and enters the other. */
function wrappedCurve({ frequenciesHz, phaseDegrees }: LayerTrace): Curve {
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
  return { x: Float64Array.from(x), y: Float64Array.from(y) };
}

function useCurves(
  lens: FrequencyLensName,
  layers: readonly Layer[],
  delays: Delays | null,
  wrapped: boolean,
): Map<Layer['id'], Curve> {
  return useMemo(() => {
    const curves = new Map<Layer['id'], Curve>();
    for (const { id, trace } of layers) {
      const delay = delays?.get(id);
      if (lens !== 'delay') curves.set(id, curveOf(lens, trace, wrapped));
      else if (delay) curves.set(id, { x: delay.frequenciesHz, y: delay.seconds });
    }
    return curves;
  }, [lens, layers, delays, wrapped]);
}

/** Thin dashes over the thick line, so that both are seen where they agree. */
const DEPTH: Record<LayerLook, number> = {
  keep: 0,
  built: 1,
  ideal: 2,
  trial: 3,
  'trial-dashed': 3,
  'trial-chained': 3,
};

function useContent(
  sheet: Sheet,
  lens: FrequencyLensName,
  layers: readonly Layer[],
  curves: ReadonlyMap<Layer['id'], Curve>,
  variation: readonly LayerTrace[],
  wrapped: boolean,
): ChartContent {
  const drawn = useMemo(
    () =>
      [...curves]
        .map(([id, curve]): ChartLayer => ({ id, name: id, look: lookOf(id), ...curve }))
        .sort((a, b) => DEPTH[a.look] - DEPTH[b.look]),
    [curves],
  );
  const laidOver = useUi((s) => s.laidOver);
  const trials = useMemo(
    () =>
      lens === 'delay'
        ? []
        : [
            ...variation.map((trace, i): ChartLayer => ({
              id: `trial ${i}`,
              name: '',
              look: 'trial',
              ...curveOf(lens, trace, wrapped),
            })),
            ...(lens === 'level' ? laidOver : []).map(({ name, look, trace }): ChartLayer => ({
              id: `laid ${name}`,
              name,
              look,
              x: trace.frequenciesHz,
              y: trace.levelDb,
            })),
          ],
    [variation, laidOver, lens, wrapped],
  );
  const ideal = layers.find((l) => l.id === 'ideal');
  const passDb = useMemo(() => {
    const found = ideal && passLevelDb(sheet.ask, ideal.trace);
    return Math.round((found ?? sheet.ask.gainDb ?? 0) * 1e3) / 1e3;
  }, [ideal, sheet.ask]);
  const forbidden = useMemo(
    () =>
      lens === 'level' && followsAsk(sheet)
        ? forbiddenLevels(sheet.ask, sheet.readings, passDb)
        : [],
    [lens, sheet, passDb],
  );
  return useMemo(() => ({ layers: drawn, trials, forbidden }), [drawn, trials, forbidden]);
}

/** Delays where there is a signal to be delayed: beside a zero they say nothing and would set the scale. */
function audibleDelays(
  curves: ReadonlyMap<Layer['id'], Curve>,
  layers: readonly Layer[],
): Float64Array[] {
  return [...curves].flatMap(([id, { x, y }]) => {
    const trace = layers.find((l) => l.id === id)?.trace;
    if (!trace) return [];
    const top = trace.levelDb.reduce((a, b) => Math.max(a, b), -400);
    return [y.filter((_, k) => valueAt(trace.frequenciesHz, trace.levelDb, x[k]) > top - 30)];
  });
}

/** The axis changes only when its rounded ends do, so that the frame is not drawn again at every edit. */
function useSteadyAxis(
  lens: FrequencyLensName,
  curves: ReadonlyMap<Layer['id'], Curve>,
  layers: readonly Layer[],
): ValueAxis {
  const values =
    lens === 'delay' ? audibleDelays(curves, layers) : [...curves.values()].map((c) => c.y);
  const axis =
    lens === 'level' ? levelAxis(values) : lens === 'phase' ? phaseAxis(values) : delayAxis(values);
  const key = JSON.stringify(axis);
  return useMemo(() => JSON.parse(key) as ValueAxis, [key]);
}
