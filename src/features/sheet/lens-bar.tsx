import { Dropdown, Tabs } from 'antd';
import { memo } from 'react';
import type { Sheet } from '@/core/sheet/schema';
import { editView } from '@/store/sheet-session';
import { IN_ROW, LENS_BAR, lensOf } from './lenses';
import type { Lens } from './lenses/lens';
import { PictureSpan } from './picture-span';
import styles from './lens-panel.module.css';

/** The lenses to choose from, and the ends of a picture over frequency. */
export const LensBar = memo(function LensBar({
  view,
  lenses,
}: {
  view: Sheet['view'];
  lenses: readonly Lens[];
}) {
  const { id: shown, overFrequency, Extra } = lensOf(view.lens);
  // One that is looked through from behind “more” has the last place of the row as long as it is.
  const inRow = lenses.findIndex(({ id }) => id === shown) < IN_ROW;
  const tabs = lenses.filter(({ id }, n) => n < (inRow ? IN_ROW : IN_ROW - 1) || id === shown);
  const more = lenses.filter((lens) => !tabs.includes(lens));
  return (
    <>
      <Tabs
        className={styles.tabs}
        activeKey={shown}
        onChange={(lens) => editView({ lens })}
        animated={false}
        // The tabs name the panel of the picture, which stands before them; those of the library's
        // own, empty and hidden, get other names.
        renderTabBar={(bar, TabBar) => <TabBar {...bar} id={LENS_BAR} />}
        items={tabs.map(({ id, title, about }, n) => ({
          key: id,
          label: (
            <span title={lenses[n].id === id ? `${about} (key ${n + 1})` : about}>{title}</span>
          ),
        }))}
      />
      <span className={styles.extra}>
        {/* No tab, and so not in the list of tabs. */}
        {more.length > 0 && (
          <Dropdown
            trigger={['click']}
            menu={{
              items: more.map(({ id, title }) => ({ key: id, label: title })),
              onClick: ({ key }) => editView({ lens: key }),
            }}
          >
            <button type="button" className={styles.more}>
              more
            </button>
          </Dropdown>
        )}
        {Extra && <Extra />}
        {overFrequency && <PictureSpan view={view} />}
      </span>
    </>
  );
});
