'use client';

import { useMemo } from 'react';
import type { Take } from '@/core/library/take';
import type { Layer } from '@/core/sheet/evaluate';
import { followsAsk } from '@/core/sheet/make';
import { forbiddenLevels, passLevelDb } from '@/core/sheet/mask';
import type { Sheet } from '@/core/sheet/schema';
import { layerName } from '@/core/sheet/layer-name';
import { usePreferences } from '@/store/preferences';
import { valueAt } from '@/ui/chart/axis';
import { Cursor, type CursorRow } from '@/ui/chart/cursor';
import type { BandLayer, LineLayer } from '@/ui/chart/layers';
import { LensChart } from '@/ui/chart/lens-chart';
import {
  axisFor,
  curveOf,
  lineOf,
  sheetLayers,
  spreadLayer,
  takeLayers,
  wantedLayers,
  type Delays,
  type FrequencyLensName,
} from './frequency-layers';
import { LensState } from './lens-state';
import { lookOf } from './look-of';
import { useSpreads } from './spreads';
import { setUi, useUi } from './ui-state';
import { useSteady } from './use-alike';
import { useLens } from './use-lens';
import { bandLayers, useLensBands } from './use-lens-bands';
import { usePointedVariation } from './use-evaluation';
import { useTakes } from './use-takes';

const TITLES = { level: 'Level', phase: 'Phase', delay: 'Group delay' } as const;
const UNITS = { level: 'dB', phase: '°', delay: 's' } as const;

interface Props {
  sheet: Sheet;
  layers: readonly Layer[];
}

/** Level or phase, from the evaluation that is always there. */
export function LevelOrPhase({ lens, ...props }: Props & { lens: 'level' | 'phase' }) {
  const wrapped = useUi((s) => s.phaseWrapped);
  const spread = useSpreads((s) => (s.stale ? null : s.spread));
  const bands = useMemo(
    () => (spread ? spreadLayer(lens, spread, wrapped) : []),
    [lens, spread, wrapped],
  );
  return <Picture lens={lens} delays={null} bands={bands} {...props} />;
}

/** Delay is computed only while it is looked at. */
export function DelayLens(props: Props) {
  const { picture, problem, stale } = useLens(props.sheet, { lens: 'delay' });
  const delays = useMemo(
    () => new Map(picture?.layers.map(({ id, value }) => [id, value]) ?? []),
    [picture],
  );
  const { delay } = useLensBands(props.sheet, 'delay');
  const bands = useMemo(() => bandLayers(delay), [delay]);
  return (
    <LensState problem={problem ?? picture?.problems[0] ?? null} stale={stale}>
      <Picture lens="delay" delays={delays} bands={bands} {...props} />
    </LensState>
  );
}

function Picture({
  lens,
  delays,
  bands,
  sheet,
  layers,
}: Props & { lens: FrequencyLensName; delays: Delays | null; bands: readonly BandLayer[] }) {
  const mark = usePreferences((p) => p.mark);
  const cursorHz = useUi((s) => s.cursorHz);
  const wrapped = useUi((s) => s.phaseWrapped);
  const takes = useTakes(sheet);
  const { fromHz, toHz } = sheet.view;
  const lines = useMemo(
    () => sheetLayers(lens, layers, delays, wrapped),
    [lens, layers, delays, wrapped],
  );
  const measured = useMemo(() => takeLayers(lens, takes, wrapped), [lens, takes, wrapped]);
  const wanted = useWanted(lens, sheet, layers);
  const trials = useTrials(lens, sheet, wrapped);
  const drawn = useMemo(
    () => [...wanted, ...bands, ...lines, ...measured, ...trials],
    [wanted, bands, lines, measured, trials],
  );
  const axis = useSteady(axisFor(lens, lines, measured, layers));
  return (
    <LensChart
      title={`${TITLES[lens]} over frequency`}
      fromHz={fromHz}
      toHz={toHz}
      axis={axis}
      unit={UNITS[lens]}
      layers={drawn}
    >
      {(scales, box) => (
        <Cursor
          scales={scales}
          box={box}
          fromHz={fromHz}
          toHz={toHz}
          atHz={cursorHz}
          mark={mark}
          rows={
            cursorHz === null
              ? []
              : [
                  ...layers.map((layer) => layerRow(layer, sheet, cursorHz, delays)),
                  ...takes.map((take) => takeRow(take, sheet, cursorHz)),
                ].filter(({ levelDb }) => !Number.isNaN(levelDb))
          }
          onMove={(hz) => setUi({ cursorHz: hz })}
          onPin={(hz) => setUi({ cursorHz: hz, pinning: true })}
        />
      )}
    </LensChart>
  );
}

/** What the cursor reads off a layer. */
function layerRow(
  { id, trace }: Layer,
  sheet: Sheet,
  hz: number,
  delays: Delays | null,
): CursorRow {
  const { frequenciesHz, levelDb, phaseDegrees } = trace;
  const db = valueAt(frequenciesHz, levelDb, hz);
  const delay = delays?.get(id);
  return {
    name: layerName(id, sheet),
    look: lookOf(id),
    levelDb: db,
    volts: sourceVolts(id, sheet) * 10 ** (db / 20),
    phaseDegrees: valueAt(frequenciesHz, phaseDegrees, hz),
    ...(delay ? { delaySeconds: valueAt(delay.frequenciesHz, delay.seconds, hz) } : {}),
  };
}

/** What the cursor reads off a take, between its points; nothing beside them. */
function takeRow(take: Take, sheet: Sheet, hz: number): CursorRow {
  const { name, frequenciesHz, levelDb, phaseDegrees } = take;
  const db = valueAt(frequenciesHz, levelDb, hz);
  return {
    name,
    look: 'take',
    levelDb: db,
    volts: sheet.source.volts * 10 ** (db / 20),
    ...(phaseDegrees ? { phaseDegrees: valueAt(frequenciesHz, phaseDegrees, hz) } : {}),
  };
}

/** The source's voltage in a layer; a keep has the one it was kept with. */
function sourceVolts(id: Layer['id'], sheet: Sheet): number {
  const keep = sheet.keeps.find((k) => `keep:${k.id}` === id);
  return (keep?.design ?? sheet).source.volts;
}

/** What is wanted of the level. */
function useWanted(
  lens: FrequencyLensName,
  sheet: Sheet,
  layers: readonly Layer[],
): readonly BandLayer[] {
  const ideal = layers.find((l) => l.id === 'ideal');
  const passDb = useMemo(() => {
    const found = ideal && passLevelDb(sheet.ask, ideal.trace);
    return Math.round((found ?? sheet.ask.gainDb ?? 0) * 1e3) / 1e3;
  }, [ideal, sheet.ask]);
  return useMemo(
    () =>
      lens === 'level' && followsAsk(sheet)
        ? wantedLayers(forbiddenLevels(sheet.ask, sheet.readings, passDb))
        : [],
    [lens, sheet, passDb],
  );
}

/** Curves of what is pointed at, and of designs laid over. */
function useTrials(lens: FrequencyLensName, sheet: Sheet, wrapped: boolean): LineLayer[] {
  const pointed = useUi((s) => s.pointedPart);
  const laidOver = useUi((s) => s.laidOver);
  const variation = usePointedVariation(lens === 'delay' ? null : sheet, pointed);
  return useMemo(() => {
    if (lens === 'delay') return [];
    const laid = lens === 'level' ? laidOver : [];
    return [
      ...variation.map((trace, i) => lineOf(`trial ${i}`, 'trial', curveOf(lens, trace, wrapped))),
      ...laid.map(({ name, look, trace }) =>
        lineOf(`laid ${name}`, look, { x: trace.frequenciesHz, y: trace.levelDb }, name),
      ),
    ];
  }, [variation, laidOver, lens, wrapped]);
}
