import { Button, InputNumber, Modal, Select } from 'antd';
import { useState } from 'react';
import type { StockEntry } from '@/core/library/stock';
import { partKindOf } from '@/core/parts';
import { deviceCalled, FIGURED_KINDS } from '@/core/parts/device-figures';
import type { NamedModel } from '@/core/parts/part-kind';
import { addToDrawer, changeInDrawer } from '@/store/drawer';
import { DeviceFields } from '../devices/device-fields';
import { attemptStored, tell } from '../shell/tell';
import styles from './drawer.module.css';

interface DeviceWindowProps {
  /** The device that is looked at; without one a further one is put in. */
  entry?: StockEntry;
  onClose: () => void;
}

/** An entry as a device; one that was put in by name alone begins as what is offered of that name. */
const deviceOf = ({ kind, name, model }: StockEntry): NamedModel =>
  structuredClone({ name, model: model ?? deviceCalled(partKindOf(kind), name)!.model });

/** An op-amp or another device of the drawer with its figures. */
export function DeviceWindow({ entry, onClose }: DeviceWindowProps) {
  const [kindName, setKind] = useState(entry?.kind ?? 'op-amp');
  const kind = partKindOf(kindName);
  const [device, setDevice] = useState<NamedModel>(() =>
    entry ? deviceOf(entry) : structuredClone(kind.models![0]),
  );
  const [quantity, setQuantity] = useState(entry?.quantity ?? 1);
  const name = device.name.trim();
  const keep = () =>
    attemptStored('The device was not stored', async () => {
      const words = { name, model: device.model, quantity };
      if (entry) await changeInDrawer(entry.id, words);
      else await addToDrawer([{ kind: kindName, note: '', ...words }]);
      tell(`${name} is in the drawer`);
      onClose();
    });
  return (
    <Modal
      open
      width={620}
      title={entry ? `Figures of ${entry.name}` : 'Put in a device'}
      onCancel={onClose}
      footer={
        <Button type="primary" disabled={name === ''} onClick={() => void keep()}>
          {entry ? 'Keep' : 'Put in'}
        </Button>
      }
    >
      <div className={styles.device}>
        {!entry && (
          <label>
            It is
            <Select<string>
              aria-label="Kind of device"
              value={kindName}
              options={FIGURED_KINDS.map((value) => ({ value, label: partKindOf(value).noun }))}
              onChange={(next) => {
                setKind(next);
                setDevice(structuredClone(partKindOf(next).models![0]));
              }}
            />
          </label>
        )}
        <label>
          Pieces
          <InputNumber<number>
            min={0}
            max={1_000_000}
            precision={0}
            value={quantity}
            onChange={(pieces) => pieces !== null && setQuantity(pieces)}
          />
        </label>
        <DeviceFields kind={kind} device={device} onChange={setDevice} />
        <p>Sheets keep the figures that they were given: choose the device again to renew them.</p>
      </div>
    </Modal>
  );
}
