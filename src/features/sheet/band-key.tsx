import { LayerKey } from '@/ui/chart/layers';
import styles from './real-lenses.module.css';

/** What the shade is, in a lens that says itself what its lines are. */
export function BandKey({ shown }: { shown: boolean }) {
  if (!shown) return null;
  return (
    <span className={styles.key}>
      <LayerKey kind="band" look="spread" /> nine boards in ten
    </span>
  );
}
