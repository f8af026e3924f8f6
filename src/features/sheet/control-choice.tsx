import { Select } from 'antd';
import type { Control } from '@/core/sheet/schema';

/** Which of several controls is looked at; nothing where there is one. */
export function ControlChoice({
  label,
  controls,
  value,
  onChoose,
}: {
  label: string;
  controls: readonly Control[];
  value: string;
  onChoose: (id: string) => void;
}) {
  if (controls.length < 2) return null;
  return (
    <Select
      size="small"
      aria-label={label}
      value={value}
      options={controls.map((c) => ({ value: c.id, label: c.name }))}
      onChange={onChoose}
    />
  );
}
