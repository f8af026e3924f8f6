import { formatFixed } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import { LensState } from '../../sheet/lens-state';
import { useLens } from '../../sheet/use-lens';
import { FieldPicture } from './field-picture';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import styles from '../lens-panel.module.css';

const STEPS = [-30, -27, -24, -21, -18, -15, -12, -9, -6, -3];
/** The beginning is on top: time runs down. */
const AXIS = { domain: [12, 0] as const, ticks: [12, 10, 8, 6, 4, 2, 0] };

function Picture({ sheet }: CrossoverLensProps) {
  const mark = usePreferences((p) => p.mark);
  const { picture, problem, stale } = useLens(sheet, { lens: 'crossoverDecay' });
  return (
    <LensState problem={problem ?? picture?.problem ?? null} stale={stale}>
      <div className={styles.stack}>
        {picture && picture.levelDb.length > 0 && (
          <FieldPicture
            title="How a burst of each tone dies away, in periods of that tone"
            sheet={sheet}
            says="what is left of a burst, in periods of its tone: 3 dB a tint, none below −30 dB"
            axis={{ ...AXIS, ticks: [...AXIS.ticks] }}
            unit=""
            x={picture.frequenciesHz}
            y={picture.periods}
            values={picture.levelDb}
            steps={STEPS}
            place={(n) => `${formatFixed(n, 1, mark)} periods later`}
          />
        )}
      </div>
    </LensState>
  );
}

export const decay: CrossoverLens = {
  id: 'decay',
  title: 'Decay',
  about: 'How long the sum rings on at each frequency after a burst of that tone',
  Picture,
};
