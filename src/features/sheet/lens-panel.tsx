'use client';

import { lazy, memo, Suspense } from 'react';
import type { Layer } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';
import { layerName } from '@/core/sheet/layer-name';
import { followsAsk } from '@/core/sheet/make';
import { LayerKey, type ChartLayer } from '@/ui/chart/layers';
import { lookOf } from './look-of';
import { lensesOf, lensOf, panelOf } from './lenses';
import { setUi, useUi } from './ui-state';
import { useEvaluated } from './use-evaluation';
import { useTakes } from './use-takes';
import styles from './lens-panel.module.css';

// The picture comes first; its lenses and its ends are put up with what stands around it.
const LensBar = lazy(() => import('./around-picture').then((m) => ({ default: m.LensBar })));
const SpreadKey = lazy(() => import('./around-picture').then((m) => ({ default: m.SpreadKey })));

/**
 * One large picture at a time; every lens has the same layers.
 *
 * @param bar whether it is time for the lenses to choose from
 */
export function LensPanel({ sheet, bar }: { sheet: Sheet; bar: boolean }) {
  const lens = lensOf(sheet.view.lens);
  const layers = useEvaluated((e) => e?.layers ?? NONE);
  return (
    <section className={styles.panel} aria-label="Lens">
      <div className={styles.bar}>
        {bar && (
          <Suspense>
            <LensBar view={sheet.view} lenses={lensesOf(sheet)} />
          </Suspense>
        )}
      </div>
      <div key={lens.id} className={styles.body} {...panelOf(lens)}>
        {!lens.ownKey && (
          <Legend
            sheet={sheet}
            layers={layers}
            wanted={lens.id === 'level' && followsAsk(sheet)}
            spread={bar && lens.banded === true}
          />
        )}
        <div className={styles.picture} onPointerLeave={() => setUi({ cursorHz: null })}>
          <Suspense>
            <lens.Picture sheet={sheet} layers={layers} />
          </Suspense>
        </div>
      </div>
    </section>
  );
}

const NONE: readonly Layer[] = [];

/** What is on the picture, with a piece of each. */
function Legend({
  sheet,
  layers,
  wanted,
  spread,
}: {
  sheet: Sheet;
  layers: readonly Layer[];
  wanted: boolean;
  spread: boolean;
}) {
  const laidOver = useUi((s) => s.laidOver);
  const takes = useTakes(sheet);
  return (
    <ul className={styles.legend} aria-label="Layers">
      {wanted && <Entry kind="band" look="wanted" name="wanted" />}
      {wanted &&
        laidOver.map((laid) => (
          <li key={laid.name}>
            <LayerKey kind="line" look={laid.look} /> {laid.name}{' '}
            <button
              type="button"
              className={styles.away}
              aria-label={`Take away: ${laid.name}`}
              onClick={() => setUi({ laidOver: laidOver.filter((l) => l !== laid) })}
            >
              ×
            </button>
          </li>
        ))}
      {layers.map(({ id }) => (
        <Entry key={id} kind="line" look={lookOf(id)} name={layerName(id, sheet)} />
      ))}
      {spread && (
        <li>
          <Suspense>
            <SpreadKey />
          </Suspense>
        </li>
      )}
      {takes.map(({ id, name }) => (
        <Entry key={id} kind="dots" look="take" name={name} />
      ))}
    </ul>
  );
}

const Entry = memo(function Entry({
  kind,
  look,
  name,
}: Pick<ChartLayer, 'kind' | 'look' | 'name'>) {
  return (
    <li>
      <LayerKey kind={kind} look={look} /> {name}
    </li>
  );
});
