import { Tabs } from 'antd';
import { memo, Suspense } from 'react';
import { formatFixed } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { editView, useSheet } from '@/store/sheet-session';
import { PictureSpan } from '../sheet/picture-span';
import { Coming } from '../shell/coming';
import { FormPopover } from '../shell/form-popover';
import { CROSSOVER_LENSES, crossoverLensOf } from './lenses';
import type { CrossoverLens } from './lenses/lens';
import { usePicture } from './follow';
import { PlaceForm } from './place-form';
import panel from '../sheet/lens-panel.module.css';
import styles from './lens-panel.module.css';

const BAR = 'crossover-lens';

/** One large picture at a time. */
export function CrossoverLenses({ sheet, crossover }: { sheet: Sheet; crossover: Crossover }) {
  const lens = crossoverLensOf(sheet.view.lens);
  return (
    <section className={panel.panel} aria-label="Lens">
      <Bar view={sheet.view} crossover={crossover} />
      <div
        key={lens.id}
        className={panel.body}
        role="tabpanel"
        id={`${BAR}-panel-${lens.id}`}
        aria-labelledby={`${BAR}-tab-${lens.id}`}
      >
        <Looked lens={lens} sheet={sheet} crossover={crossover} />
      </div>
    </section>
  );
}

/** Which picture, heard from where, and over which frequencies. */
const Bar = memo(function Bar({ view, crossover }: Pick<Sheet, 'view'> & { crossover: Crossover }) {
  const mark = usePreferences((p) => p.mark);
  return (
    <div className={`${panel.bar} ${styles.bar}`}>
      <Tabs
        className={panel.tabs}
        activeKey={crossoverLensOf(view.lens).id}
        onChange={(id) => editView({ lens: id })}
        animated={false}
        renderTabBar={(bar, TabBar) => <TabBar {...bar} id={BAR} />}
        items={TABS}
      />
      <FormPopover content={<PlaceOfOpenSheet />}>
        <button
          type="button"
          className={styles.place}
          title="Where drivers and listener are, and what stands around them"
        >
          <span className="visually-hidden">Listened to from </span>
          {placeWords(crossover, mark)}
        </button>
      </FormPopover>
      <PictureSpan view={view} />
    </div>
  );
});

const TABS = CROSSOVER_LENSES.map(({ id, title, about }, n) => ({
  key: id,
  label: <span title={n < 10 ? `${about} (key ${(n + 1) % 10})` : about}>{title}</span>,
}));

/** The form follows the sheet by itself, so that no edit draws the bar anew. */
function PlaceOfOpenSheet() {
  const sheet = useSheet();
  return sheet?.crossover && <PlaceForm sheet={sheet} crossover={sheet.crossover} />;
}

/** The picture itself, once there is something to see. */
function Looked({ lens, ...props }: { lens: CrossoverLens; sheet: Sheet; crossover: Crossover }) {
  const picture = usePicture(props.sheet.id);
  if (!picture || picture.layers.length === 0)
    return (
      <p className={styles.waiting}>{picture ? picture.problems[0] : 'Solving the network …'}</p>
    );
  return (
    <Suspense fallback={<Coming />}>
      <lens.Picture {...props} picture={picture} />
    </Suspense>
  );
}

/** How far away the listener is, and what stands around. */
function placeWords({ listen, surroundings = {} }: Crossover, mark: DecimalMark): string {
  const { xMetres, yMetres, zMetres } = listen;
  const metres = formatFixed(Math.hypot(xMetres, yMetres, zMetres), 1, mark);
  return [`${metres} m`, ...Object.keys(surroundings)].join(', ');
}
