import { Dropdown } from 'antd';
import { memo } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import { driverEnd } from '@/core/crossover/crossover-design';
import { MOST_WAYS } from '@/core/crossover/ways';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet, Way } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { attempt } from '../shell/tell';
import { addWay, setAmplifier } from './actions';
import { WayRow } from './way-row';
import styles from './ways-strip.module.css';

/** One amplifier, and a row for each way from it to its driver. */
export function WaysStrip({
  sheet,
  crossover,
  selected,
}: {
  sheet: Sheet;
  crossover: Crossover;
  selected: string | null;
}) {
  const deepest = Math.min(...sheet.ways.map(depthOf));
  return (
    <section className={styles.strip} aria-label="Ways" data-figures>
      <div className={styles.head}>
        <Amplifier source={sheet.source} />
        {sheet.ways.length < MOST_WAYS && <AddWay />}
      </div>
      <ol className={styles.ways}>
        {sheet.ways.map((way, i) => (
          <WayRow
            key={way.id}
            sheetId={sheet.id}
            way={way}
            index={i}
            count={sheet.ways.length}
            crossover={crossover}
            selected={way.stages.some((s) => s.id === selected) ? selected : null}
            leadMetres={depthOf(way) - deepest}
          />
        ))}
      </ol>
    </section>
  );
}

const depthOf = (way: Way): number => driverEnd(way).place?.zMetres ?? 0;

/** Puts one more way beside the others. */
const AddWay = memo(function AddWay() {
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'band', label: 'One more band, above the others' },
          { key: 'helper', label: 'A helper of the lowest: half a way' },
        ],
        onClick: ({ key }) => attempt(() => addWay(key as 'band' | 'helper')),
      }}
    >
      <button type="button" className={styles.addWay}>
        + way
      </button>
    </Dropdown>
  );
});

const Amplifier = memo(function Amplifier({ source }: Pick<Sheet, 'source'>) {
  const mark = usePreferences((p) => p.mark);
  return (
    <div className={styles.amplifier}>
      <span className={styles.name}>{source.name}</span>
      <span className={styles.figures}>
        <EditableQuantity
          label="Amplifier voltage"
          value={source.volts}
          kind="volts"
          mark={mark}
          shown={formatQuantity(source.volts, 'volts', { unit: true, mark, digits: 3 })}
          onCommit={(volts) => setAmplifier({ volts: volts! })}
        />
        {' · '}
        <EditableQuantity
          label="Amplifier resistance"
          value={source.ohms}
          kind="ohms"
          mark={mark}
          shown={formatQuantity(source.ohms, 'ohms', { unit: true, mark, digits: 2 })}
          onCommit={(ohms) => setAmplifier({ ohms: ohms! })}
        />
      </span>
    </div>
  );
});
