'use client';

import { useMemo } from 'react';
import type { Evaluation, Layer } from '@/core/sheet/evaluate';
import type { Lens, Sheet } from '@/core/sheet/schema';
import { layerName } from '@/core/formats/csv';
import { usePreferences } from '@/store/preferences';
import { editView } from '@/store/sheet-session';
import { EditableQuantity } from '@/ui/controls/quantity-input';
import { formatQuantity } from '@/core/quantity/format';
import { ReedError } from '@/core/errors';
import { DelayLens, LevelOrPhase, lookOf } from './frequency-lens';
import { HarmonicsLens } from './harmonics-lens';
import { MapLens } from './map-lens';
import { TimeLens } from './time-lens';
import { setUi, useUi } from './ui-state';
import styles from './lens-panel.module.css';

const LENSES: readonly { id: Lens; title: string }[] = [
  { id: 'level', title: 'Level' },
  { id: 'phase', title: 'Phase' },
  { id: 'delay', title: 'Delay' },
  { id: 'time', title: 'Time' },
  { id: 'harmonics', title: 'Harmonics' },
  { id: 'map', title: 'Map' },
];

/** One large picture at a time; every lens has the same layers. */
export function LensPanel({ sheet, evaluation }: { sheet: Sheet; evaluation: Evaluation | null }) {
  const { lens } = sheet.view;
  const layers = useMemo(() => evaluation?.layers ?? [], [evaluation]);
  const overFrequency = lens === 'level' || lens === 'phase' || lens === 'delay';
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
        {lens === 'phase' && <WrapSwitch />}
        {overFrequency && <Span view={sheet.view} />}
      </div>
      <Legend sheet={sheet} layers={layers} wanted={lens === 'level'} />
      <div
        id="lens-picture"
        role="tabpanel"
        aria-labelledby={`lens-${lens}`}
        className={styles.picture}
        onPointerLeave={() => setUi({ cursorHz: null })}
      >
        <Body lens={lens} sheet={sheet} layers={layers} />
      </div>
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
      return <TimeLens sheet={sheet} layers={layers} />;
    case 'harmonics':
      return <HarmonicsLens sheet={sheet} />;
    case 'map':
      return <MapLens sheet={sheet} />;
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
  return (
    <ul className={styles.legend} aria-label="Layers">
      {wanted && (
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
  );
}

function WrapSwitch() {
  const wrapped = useUi((s) => s.phaseWrapped);
  return (
    <label className={styles.wrap}>
      <input
        type="checkbox"
        checked={wrapped}
        onChange={(e) => setUi({ phaseWrapped: e.target.checked })}
      />{' '}
      within ±180°
    </label>
  );
}

/** The picture's ends, edited where they stand. */
function Span({ view: { fromHz, toHz } }: { view: Sheet['view'] }) {
  const mark = usePreferences((p) => p.mark);
  const setSpan = (from: number, to: number) => {
    if (!(from > 0) || !(from * 2 <= to))
      throw new ReedError(
        'range',
        'The picture needs a span of at least one octave, from a lower to a higher frequency.',
      );
    editView({ fromHz: from, toHz: to });
  };
  return (
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
  );
}
