'use client';

import { lazy, Suspense } from 'react';
import type { Layer } from '@/core/sheet/evaluate';
import type { Lens, Sheet } from '@/core/sheet/schema';
import { layerName } from '@/core/sheet/layer-name';
import { followsAsk } from '@/core/sheet/make';
import { DelayLens, LevelOrPhase, lookOf } from './frequency-lens';
import { panelOf } from './lenses';
import { setUi, useUi } from './ui-state';
import { useEvaluated } from './use-evaluation';
import styles from './lens-panel.module.css';

// The picture comes first; its lenses and its ends are put up with what stands around it.
const LensBar = lazy(() => import('./around-picture').then((m) => ({ default: m.LensBar })));
// The first screen shows Level; the others are fetched when they are first looked through.
const TimeLens = lazy(() => import('./time-lens').then((m) => ({ default: m.TimeLens })));
const HarmonicsLens = lazy(() =>
  import('./harmonics-lens').then((m) => ({ default: m.HarmonicsLens })),
);
const RestLens = lazy(() => import('./rest-lens').then((m) => ({ default: m.RestLens })));
const MapLens = lazy(() => import('./map-lens').then((m) => ({ default: m.MapLens })));

/**
 * One large picture at a time; every lens has the same layers.
 *
 * @param bar whether it is time for the lenses to choose from
 */
export function LensPanel({ sheet, bar }: { sheet: Sheet; bar: boolean }) {
  const { lens } = sheet.view;
  const layers = useEvaluated((e) => e?.layers ?? NONE);
  return (
    <section className={styles.panel} aria-label="Lens">
      <div className={styles.bar}>
        {bar && (
          <Suspense>
            <LensBar view={sheet.view} />
          </Suspense>
        )}
      </div>
      <div key={lens} className={styles.body} {...panelOf(lens)}>
        <Legend sheet={sheet} layers={layers} wanted={lens === 'level' && followsAsk(sheet)} />
        <div className={styles.picture} onPointerLeave={() => setUi({ cursorHz: null })}>
          <Body lens={lens} sheet={sheet} layers={layers} />
        </div>
      </div>
    </section>
  );
}

const NONE: readonly Layer[] = [];

function Body({ lens, sheet, layers }: { lens: Lens; sheet: Sheet; layers: readonly Layer[] }) {
  switch (lens) {
    case 'level':
    case 'phase':
      return <LevelOrPhase lens={lens} sheet={sheet} layers={layers} />;
    case 'delay':
      return <DelayLens sheet={sheet} layers={layers} />;
    case 'time':
      return (
        <Suspense>
          <TimeLens sheet={sheet} layers={layers} />
        </Suspense>
      );
    case 'harmonics':
      return (
        <Suspense>
          <HarmonicsLens sheet={sheet} />
        </Suspense>
      );
    case 'rest':
      return (
        <Suspense>
          <RestLens sheet={sheet} />
        </Suspense>
      );
    case 'map':
      return (
        <Suspense>
          <MapLens sheet={sheet} />
        </Suspense>
      );
  }
}

function Legend({
  sheet,
  layers,
  wanted,
}: {
  sheet: Sheet;
  layers: readonly Layer[];
  wanted: boolean;
}) {
  const laidOver = useUi((s) => s.laidOver);
  return (
    <ul className={styles.legend} aria-label="Layers">
      {wanted && (
        <li>
          <span className={`${styles.key} ${styles.wanted}`} /> wanted
        </li>
      )}
      {wanted &&
        laidOver.map(({ name, look }) => (
          <li key={name}>
            <span className={`${styles.key} ${styles[look]}`} /> {name}
          </li>
        ))}
      {layers.map(({ id }) => (
        <li key={id}>
          <span className={`${styles.key} ${styles[lookOf(id)]}`} /> {layerName(id, sheet)}
        </li>
      ))}
    </ul>
  );
}
