import { Dropdown } from 'antd';
import { memo, useState } from 'react';
import { driversOfLibrary } from '@/store/drivers';
import { attempt } from '../shell/tell';
import { changeDriver, removeWay } from './actions';
import styles from './ways-strip.module.css';

/** No driver is called so: an id has no spaces. */
const REMOVE = 'remove way';

interface Props {
  wayId: string;
  wayName: string;
  /** What the way ends in, by its id and by name. */
  driver: string;
  name: string;
}

/** What a way ends in, and what it could end in instead. */
export const DriverChoice = memo(function DriverChoice({ wayId, wayName, driver, name }: Props) {
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
          { key: REMOVE, label: `Remove the way ${wayName}` },
        ],
        onClick: ({ key }) => {
          if (key === REMOVE) {
            attempt(() => removeWay(wayId));
            return;
          }
          const chosen = drivers.find((d) => d.id === key)!;
          attempt(() => changeDriver(wayId, { driver: chosen.id, name: chosen.name }));
        },
      }}
    >
      <button
        type="button"
        className={styles.driver}
        aria-label={`Driver of ${wayName}: ${name}`}
        aria-haspopup="menu"
      >
        {name}
      </button>
    </Dropdown>
  );
});
