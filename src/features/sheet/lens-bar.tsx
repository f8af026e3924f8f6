'use client';

import { Segmented, Tabs } from 'antd';
import { memo } from 'react';
import type { Lens, Sheet } from '@/core/sheet/schema';
import { editView } from '@/store/sheet-session';
import { LENS_BAR, PATH_LENSES } from './lenses';
import { PictureSpan } from './picture-span';
import { setUi, useUi } from './ui-state';
import styles from './lens-panel.module.css';

const OVER_FREQUENCY: readonly Lens[] = ['level', 'phase', 'delay'];

/** The lenses to choose from, and the ends of a picture over frequency. */
export const LensBar = memo(function LensBar({ view }: { view: Sheet['view'] }) {
  const { lens } = view;
  return (
    <>
      <Tabs
        className={styles.tabs}
        activeKey={lens}
        onChange={(key) => editView({ lens: key as Lens })}
        animated={false}
        // The tabs name the panel of the picture, which stands before them; those of the library's
        // own, empty and hidden, get other names.
        renderTabBar={(bar, TabBar) => <TabBar {...bar} id={LENS_BAR} />}
        items={PATH_LENSES.map(({ id, title }, n) => ({
          key: id,
          label: <span title={`Key ${n + 1}`}>{title}</span>,
        }))}
      />
      {OVER_FREQUENCY.includes(lens) && (
        <span className={styles.extra}>
          {lens === 'phase' && <WrapSwitch />}
          <PictureSpan view={view} />
        </span>
      )}
    </>
  );
});

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
