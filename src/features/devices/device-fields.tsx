import { Input, Select } from 'antd';
import {
  figureIn,
  figuresOf,
  printFigure,
  withFigure,
  type DeviceFigure,
} from '@/core/parts/device-figures';
import type { NamedModel, PartKind } from '@/core/parts/part-kind';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import styles from './device-fields.module.css';

interface DeviceFieldsProps {
  kind: PartKind;
  device: NamedModel;
  onChange: (device: NamedModel) => void;
}

/** A device by its name and its figures, begun from one of those that are offered. */
export function DeviceFields({ kind, device, onChange }: DeviceFieldsProps) {
  const mark = usePreferences((p) => p.mark);
  const offered = kind.models ?? [];
  const change = (figure: DeviceFigure, told: number | null) => {
    const model = withFigure(kind, device.model, figure, told);
    // What is no longer what its name says gets a name of its own.
    const isOffered = offered.some(({ name }) => name === device.name);
    onChange({ name: isOffered ? `${device.name}, own figures` : device.name, model });
  };
  return (
    <div className={styles.fields}>
      <label className={styles.line}>
        Begins as
        <Select<string>
          aria-label="Begins as"
          value={offered.find(({ name }) => device.name.startsWith(name))?.name}
          placeholder="one of those offered"
          options={offered.map(({ name }) => ({ value: name, label: name }))}
          onChange={(name) => onChange(structuredClone(offered.find((m) => m.name === name)!))}
        />
      </label>
      <label className={styles.line}>
        Called
        <Input
          aria-label="Name of the device"
          value={device.name}
          maxLength={80}
          onChange={(e) => onChange({ ...device, name: e.target.value })}
        />
      </label>
      {device.model === 'ideal' ? (
        <p className={styles.quiet}>
          An ideal op-amp has no figures: endless gain, at every frequency, without noise.
        </p>
      ) : (
        <dl className={styles.figures} aria-label="Figures">
          {figuresOf(kind).map((figure) => {
            const told = figureIn(device.model, figure);
            return (
              <div key={figure.field}>
                <dt>{figure.label}</dt>
                <dd>
                  <EditableQuantity
                    label={figure.label}
                    value={told}
                    kind={figure.quantity}
                    mark={mark}
                    shown={told === null ? 'not told' : printFigure(figure, told, mark)}
                    clearable
                    onCommit={(value) => change(figure, value)}
                  />
                </dd>
              </div>
            );
          })}
        </dl>
      )}
    </div>
  );
}
