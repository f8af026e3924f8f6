import { Select } from 'antd';
import type { Sheet } from '@/core/sheet/schema';
import styles from './bench.module.css';

/** Of a bank or a crossover: which of its paths stands on the bench. */
export function WayChoice({
  ways,
  chosen,
  onChoose,
}: {
  ways: readonly Sheet['ways'][number][];
  chosen: string;
  onChoose: (id: string) => void;
}) {
  if (ways.length < 2) return null;
  return (
    <Select
      aria-label="Which path is measured"
      className={styles.way}
      value={chosen}
      options={ways.map(({ id, name }, i) => ({ value: id, label: name || `path ${i + 1}` }))}
      onChange={onChoose}
    />
  );
}
