import { Tabs } from 'antd';
import { Suspense } from 'react';
import { formatFixed } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { editView } from '@/store/sheet-session';
import { PictureSpan } from '../sheet/picture-span';
import { Coming } from '../shell/coming';
import { FormPopover } from '../shell/form-popover';
import { CROSSOVER_LENSES, crossoverLensOf } from './lenses';
import { usePicture } from './follow';
import { PlaceForm } from './place-form';
import panel from '../sheet/lens-panel.module.css';
import styles from './lens-panel.module.css';

const BAR = 'crossover-lens';

/** One large picture at a time. */
export function CrossoverLenses({ sheet, crossover }: { sheet: Sheet; crossover: Crossover }) {
  const mark = usePreferences((p) => p.mark);
  const lens = crossoverLensOf(sheet.view.lens);
  const picture = usePicture(sheet.id);
  return (
    <section className={panel.panel} aria-label="Lens">
      <div className={`${panel.bar} ${styles.bar}`}>
        <Tabs
          className={panel.tabs}
          activeKey={lens.id}
          onChange={(id) => editView({ lens: id })}
          animated={false}
          renderTabBar={(bar, TabBar) => <TabBar {...bar} id={BAR} />}
          items={CROSSOVER_LENSES.map(({ id, title, about }, n) => ({
            key: id,
            label: <span title={n < 10 ? `${about} (key ${(n + 1) % 10})` : about}>{title}</span>,
          }))}
        />
        <FormPopover content={<PlaceForm sheet={sheet} crossover={crossover} />}>
          <button
            type="button"
            className={styles.place}
            title="Where drivers and listener are, and what stands around them"
          >
            <span className="visually-hidden">Listened to from </span>
            {placeWords(crossover, mark)}
          </button>
        </FormPopover>
        <PictureSpan view={sheet.view} />
      </div>
      <div
        key={lens.id}
        className={panel.body}
        role="tabpanel"
        id={`${BAR}-panel-${lens.id}`}
        aria-labelledby={`${BAR}-tab-${lens.id}`}
      >
        {picture && picture.layers.length > 0 ? (
          <Suspense fallback={<Coming />}>
            <lens.Picture sheet={sheet} crossover={crossover} picture={picture} />
          </Suspense>
        ) : (
          <p className={styles.waiting}>
            {picture ? picture.problems[0] : 'Solving the network …'}
          </p>
        )}
      </div>
    </section>
  );
}

/** How far away the listener is, and what stands around. */
function placeWords({ listen, surroundings = {} }: Crossover, mark: DecimalMark): string {
  const { xMetres, yMetres, zMetres } = listen;
  const metres = formatFixed(Math.hypot(xMetres, yMetres, zMetres), 1, mark);
  return [`${metres} m`, ...Object.keys(surroundings)].join(', ');
}
