import { Dropdown } from 'antd';
import { useState } from 'react';
import { driverEnd } from '@/core/crossover/crossover-design';
import type { Way } from '@/core/sheet/schema';
import { driversOfLibrary } from '@/store/drivers';
import { attempt } from '../shell/tell';
import { changeDriver, removeWay } from './actions';
import styles from './ways-strip.module.css';

/** No driver is called so: an id has no spaces. */
const REMOVE = 'remove way';

/** What a way ends in, and what it could end in instead. */
export function DriverChoice({ way }: { way: Way }) {
  const { name, driver } = driverEnd(way);
  const [drivers, setDrivers] = useState<readonly { id: string; name: string }[]>([]);
  return (
    <Dropdown
      trigger={['click']}
      onOpenChange={(open) => {
        if (open) void driversOfLibrary().then(setDrivers);
      }}
      menu={{
        selectedKeys: [driver],
        items: [
          ...drivers.map((d) => ({ key: d.id, label: d.name })),
          { type: 'divider' as const },
          { key: REMOVE, label: `Remove the way ${way.name}` },
        ],
        onClick: ({ key }) => {
          if (key === REMOVE) {
            attempt(() => removeWay(way.id));
            return;
          }
          const chosen = drivers.find((d) => d.id === key)!;
          attempt(() => changeDriver(way.id, { driver: chosen.id, name: chosen.name }));
        },
      }}
    >
      <button
        type="button"
        className={styles.driver}
        aria-label={`Driver of ${way.name}: ${name}`}
        aria-haspopup="menu"
      >
        {name}
      </button>
    </Dropdown>
  );
}
