import { Tabs } from 'antd';
import { memo } from 'react';
import type { Sheet } from '@/core/sheet/schema';
import { editView } from '@/store/sheet-session';
import { LENS_BAR, LENSES, lensOf } from './lenses';
import { PictureSpan } from './picture-span';
import styles from './lens-panel.module.css';

/** The lenses to choose from, and the ends of a picture over frequency. */
export const LensBar = memo(function LensBar({ view }: { view: Sheet['view'] }) {
  const { id: shown, overFrequency, Extra } = lensOf(view.lens);
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
        items={LENSES.map(({ id, title, about }, n) => ({
          key: id,
          label: <span title={`${about} (key ${n + 1})`}>{title}</span>,
        }))}
      />
      {(overFrequency || Extra) && (
        <span className={styles.extra}>
          {Extra && <Extra />}
          {overFrequency && <PictureSpan view={view} />}
        </span>
      )}
    </>
  );
});
