'use client';

import { Segmented, Tabs } from 'antd';
import { lazy, Suspense, useMemo } from 'react';
import type { Evaluation, Layer } from '@/core/sheet/evaluate';
import type { Lens, Sheet } from '@/core/sheet/schema';
import { layerName } from '@/core/sheet/layer-name';
import { editView } from '@/store/sheet-session';
import { followsAsk } from '@/core/sheet/make';
import { DelayLens, LevelOrPhase, lookOf } from './frequency-lens';
import { PATH_LENSES } from './lenses';
import { setUi, useUi } from './ui-state';
import styles from './lens-panel.module.css';

// The picture's ends are put up with what stands around it.
const PictureSpan = lazy(() =>
  import('./around-picture').then((m) => ({ default: m.PictureSpan })),
);
// The first screen shows Level; the others are fetched when they are first looked through.
const TimeLens = lazy(() => import('./time-lens').then((m) => ({ default: m.TimeLens })));
const HarmonicsLens = lazy(() =>
  import('./harmonics-lens').then((m) => ({ default: m.HarmonicsLens })),
);
const MapLens = lazy(() => import('./map-lens').then((m) => ({ default: m.MapLens })));

const OVER_FREQUENCY: readonly Lens[] = ['level', 'phase', 'delay'];

/** One large picture at a time; every lens has the same layers. */
export function LensPanel({ sheet, evaluation }: { sheet: Sheet; evaluation: Evaluation | null }) {
  const { lens } = sheet.view;
  const layers = useMemo(() => evaluation?.layers ?? [], [evaluation]);
  return (
    <section className={styles.panel} aria-label="Lens">
      <Tabs
        className={styles.tabs}
        activeKey={lens}
        onChange={(key) => editView({ lens: key as Lens })}
        animated={false}
        destroyOnHidden
        items={PATH_LENSES.map(({ id, title }, n) => ({
          key: id,
          label: <span title={`Key ${n + 1}`}>{title}</span>,
          children: lens === id && (
            <>
              <Legend
                sheet={sheet}
                layers={layers}
                wanted={lens === 'level' && followsAsk(sheet)}
              />
              <div className={styles.picture} onPointerLeave={() => setUi({ cursorHz: null })}>
                <Body lens={lens} sheet={sheet} layers={layers} />
              </div>
            </>
          ),
        }))}
      />
      {OVER_FREQUENCY.includes(lens) && (
        <span className={styles.extra}>
          {lens === 'phase' && <WrapSwitch />}
          <Suspense>
            <PictureSpan view={sheet.view} />
          </Suspense>
        </span>
      )}
    </section>
  );
}

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

function WrapSwitch() {
  const wrapped = useUi((s) => s.phaseWrapped);
  return (
    <Segmented<'on' | 'within'>
      size="small"
      aria-label="Phase"
      value={wrapped ? 'within' : 'on'}
      options={[
        { value: 'on', label: 'followed on' },
        { value: 'within', label: 'within ±180°' },
      ]}
      onChange={(value) => setUi({ phaseWrapped: value === 'within' })}
    />
  );
}
