import { InputNumber, Segmented } from 'antd';
import { formatQuantity } from '@/core/quantity/format';
import type { Supply } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { attempt } from '../shell/tell';
import { changeSupply } from './actions/parts';
import { supplyOf } from '@/core/sheet/supply-words';
import styles from './spread.module.css';

const USUAL_SINGLE = { ohms: 10_000, farads: 47e-6 };

/** What feeds the op-amps: rails either side of ground, or one and half of it made. */
export function SupplyForm({ supply }: { supply: Supply | undefined }) {
  const mark = usePreferences((p) => p.mark);
  const own = supplyOf(supply);
  const change = (next: Supply) => attempt(() => changeSupply(next));
  const print = (x: number, kind: 'ohms' | 'farads' | 'hertz') =>
    formatQuantity(x, kind, { unit: true, digits: 3, mark });
  return (
    <div className={styles.form}>
      <label>
        Fed by
        <Segmented<Supply['is']>
          size="small"
          aria-label="Supply"
          value={own.is}
          options={[
            { value: 'split', label: 'two rails' },
            { value: 'single', label: 'one rail' },
          ]}
          onChange={(is) =>
            change(
              is === 'split' ? { is, volts: own.volts } : { is, volts: own.volts, ...USUAL_SINGLE },
            )
          }
        />
      </label>
      <label>
        {own.is === 'split' ? 'Either side of ground' : 'Above ground'}
        <InputNumber<number>
          size="small"
          min={1}
          max={60}
          value={own.volts}
          suffix="V"
          style={{ width: 96 }}
          onChange={(volts) => volts !== null && change({ ...own, volts })}
        />
      </label>
      {own.is === 'single' && (
        <>
          <p className={styles.quiet}>
            Half of it, {formatQuantity(own.volts / 2, 'volts', { unit: true, mark })}, takes the
            place of ground in stages with op-amps: two resistors of{' '}
            <EditableQuantity
              label="Resistors of the half supply"
              value={own.ohms}
              kind="ohms"
              mark={mark}
              shown={print(own.ohms, 'ohms')}
              onCommit={(ohms) => changeSupply({ ...own, ohms: ohms! })}
            />{' '}
            make it,{' '}
            <EditableQuantity
              label="Bypass of the half supply"
              value={own.farads}
              kind="farads"
              mark={mark}
              shown={print(own.farads, 'farads')}
              onCommit={(farads) => changeSupply({ ...own, farads: farads! })}
            />{' '}
            bypasses it, above {print(1 / (Math.PI * own.ohms * own.farads), 'hertz')}.
          </p>
          <p className={styles.quiet}>
            Signals come in and go out through capacitors; voltages are told from half the supply.
            What the reference does to the response is a term of the Difference lens.
          </p>
        </>
      )}
    </div>
  );
}
