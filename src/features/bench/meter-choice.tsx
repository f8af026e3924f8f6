import { Select } from 'antd';
import { METERS, type Meter } from '@/core/bench/meters';

const NONE = 'nothing that it feels';

/** What a take is measured with: it is put into the prediction. */
export function MeterChoice({
  meter,
  onMeter,
}: {
  meter: Meter | undefined;
  onMeter: (meter: Meter | undefined) => void;
}) {
  return (
    <Select
      aria-label="Measured with"
      value={meter?.name ?? NONE}
      options={[NONE, ...METERS.map((m) => m.name)].map((name) => ({ value: name, label: name }))}
      onChange={(name) => onMeter(METERS.find((m) => m.name === name))}
    />
  );
}
