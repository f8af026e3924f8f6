'use client';

import { useMemo } from 'react';
import type { Evaluation, Layer, LayerTrace } from '@/core/sheet/evaluate';
import { forbiddenLevels } from '@/core/sheet/mask';
import type { Sheet } from '@/core/sheet/schema';
import { layerName } from '@/core/formats/csv';
import { usePreferences } from '@/store/preferences';
import { editView } from '@/store/sheet-session';
import { levelAxis, phaseAxis, valueAt, type ValueAxis } from '@/ui/chart/axis';
import type { ChartContent, ChartLayer, LayerLook } from '@/ui/chart/chart-model';
import { Cursor } from '@/ui/chart/cursor';
import { LensChart } from '@/ui/chart/lens-chart';
import { EditableQuantity } from '@/ui/controls/quantity-input';
import { formatQuantity } from '@/core/quantity/format';
import { ReedError } from '@/core/errors';
import { setUi, useUi } from './ui-state';
import { usePointedVariation } from './use-evaluation';
import styles from './lens-panel.module.css';

const LENSES = [
  { id: 'level', title: 'Level' },
  { id: 'phase', title: 'Phase' },
] as const;

type Lens = (typeof LENSES)[number]['id'];

/** One large picture at a time; every lens has the same layers. */
export function LensPanel({ sheet, evaluation }: { sheet: Sheet; evaluation: Evaluation | null }) {
  const mark = usePreferences((p) => p.mark);
  const cursorHz = useUi((s) => s.cursorHz);
  const pointed = useUi((s) => s.pointedPart);
  const variation = usePointedVariation(sheet, pointed);
  const { fromHz, toHz } = sheet.view;
  const lens: Lens = sheet.view.lens === 'phase' ? 'phase' : 'level';
  const layers = useMemo(() => evaluation?.layers ?? [], [evaluation]);
  const content = useContent(sheet, lens, layers, variation);
  const axis = useSteadyAxis(lens, layers);
  const setSpan = (from: number, to: number) => {
    if (!(from > 0) || !(from * 2 <= to))
      throw new ReedError(
        'range',
        'The picture needs a span of at least one octave, from a lower to a higher frequency.',
      );
    editView({ fromHz: from, toHz: to });
  };
  return (
    <section className={styles.panel} aria-label="Lens">
      <div className={styles.bar}>
        <div className={styles.tabs} role="tablist" aria-label="Lenses">
          {LENSES.map(({ id, title }) => (
            <button
              key={id}
              type="button"
              role="tab"
              id={`lens-${id}`}
              aria-selected={lens === id}
              aria-controls="lens-picture"
              className={lens === id ? `${styles.tab} ${styles.current}` : styles.tab}
              onClick={() => editView({ lens: id })}
            >
              {title}
            </button>
          ))}
        </div>
        <span className={`mono ${styles.span}`}>
          <EditableQuantity
            label="Picture from"
            value={fromHz}
            kind="hertz"
            mark={mark}
            shown={formatQuantity(fromHz, 'hertz', { unit: true, mark })}
            onCommit={(hz) => setSpan(hz!, toHz)}
          />
          {' to '}
          <EditableQuantity
            label="Picture to"
            value={toHz}
            kind="hertz"
            mark={mark}
            shown={formatQuantity(toHz, 'hertz', { unit: true, mark })}
            onCommit={(hz) => setSpan(fromHz, hz!)}
          />
        </span>
      </div>
      <ul className={styles.legend} aria-label="Layers">
        {lens === 'level' && (
          <li>
            <span className={`${styles.key} ${styles.wanted}`} /> wanted
          </li>
        )}
        {layers.map(({ id }) => (
          <li key={id}>
            <span className={`${styles.key} ${styles[lookOf(id)]}`} /> {layerName(id, sheet)}
          </li>
        ))}
      </ul>
      <div
        id="lens-picture"
        role="tabpanel"
        aria-labelledby={`lens-${lens}`}
        className={styles.picture}
        onPointerLeave={() => setUi({ cursorHz: null })}
      >
        <LensChart
          title={`${lens === 'level' ? 'Level' : 'Phase'} over frequency`}
          fromHz={fromHz}
          toHz={toHz}
          axis={axis}
          unit={lens === 'level' ? 'dB' : '°'}
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
                  : layers.map(({ id, trace }) => ({
                      name: layerName(id, sheet),
                      look: lookOf(id),
                      levelDb: valueAt(trace.frequenciesHz, trace.levelDb, cursorHz),
                      phaseDegrees: valueAt(trace.frequenciesHz, trace.phaseDegrees, cursorHz),
                    }))
              }
              onMove={(hz) => setUi({ cursorHz: hz })}
              onPin={(hz) => setUi({ cursorHz: hz, pinning: true })}
            />
          )}
        </LensChart>
      </div>
    </section>
  );
}

function lookOf(id: Layer['id']): LayerLook {
  return id === 'ideal' || id === 'built' ? id : 'keep';
}

const valuesOf = (lens: Lens, trace: LayerTrace) =>
  lens === 'level' ? trace.levelDb : trace.phaseDegrees;

/** Thin dashes over the thick line, so that both are seen where they agree. */
const DEPTH: Record<LayerLook, number> = { keep: 0, built: 1, ideal: 2, trial: 3 };

function useContent(
  sheet: Sheet,
  lens: Lens,
  layers: readonly Layer[],
  variation: readonly LayerTrace[],
): ChartContent {
  const drawn = useMemo(
    () =>
      layers
        .map(({ id, trace }): ChartLayer => ({
          id,
          name: id,
          look: lookOf(id),
          x: trace.frequenciesHz,
          y: valuesOf(lens, trace),
        }))
        .sort((a, b) => DEPTH[a.look] - DEPTH[b.look]),
    [layers, lens],
  );
  const trials = useMemo(
    () =>
      variation.map((trace, i): ChartLayer => ({
        id: `trial ${i}`,
        name: '',
        look: 'trial',
        x: trace.frequenciesHz,
        y: valuesOf(lens, trace),
      })),
    [variation, lens],
  );
  const ideal = layers.find((l) => l.id === 'ideal');
  const passDb = useMemo(
    () =>
      ideal
        ? ideal.trace.levelDb[sheet.ask.kind === 'low-pass' ? 0 : ideal.trace.levelDb.length - 1]
        : 0,
    [ideal, sheet.ask.kind],
  );
  const forbidden = useMemo(
    () =>
      lens === 'level'
        ? forbiddenLevels(
            sheet.ask,
            sheet.readings,
            sheet.ask.gainDb ?? Math.round(passDb * 1e6) / 1e6,
          )
        : [],
    [lens, sheet.ask, sheet.readings, passDb],
  );
  return useMemo(() => ({ layers: drawn, trials, forbidden }), [drawn, trials, forbidden]);
}

/** The axis changes only when its rounded ends do, so that the frame is not drawn again at every edit. */
function useSteadyAxis(lens: Lens, layers: readonly Layer[]): ValueAxis {
  const axis =
    lens === 'level'
      ? levelAxis(layers.map((l) => l.trace.levelDb))
      : phaseAxis(layers.map((l) => l.trace.phaseDegrees));
  const key = JSON.stringify(axis);
  return useMemo(() => JSON.parse(key) as ValueAxis, [key]);
}
