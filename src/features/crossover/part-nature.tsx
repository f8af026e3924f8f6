import { Select } from 'antd';
import { memo } from 'react';
import { messageOf } from '@/core/errors';
import { partKindOf } from '@/core/parts';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Stage, StagePart } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { CORES, CORE_NAMES, WIRES, windCoil } from '@/core/speaker/coils/wind';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { attempt } from '../shell/tell';
import { setLoss, setWound } from './actions';
import styles from './part-foot.module.css';

/*
 * What a chosen coil or capacitor is besides its value.
 */

/** Whether a part has a loss of its own that can be said. */
export const isLossy = (stage: Stage, part: string): boolean => {
  const drawn = drawnParts(stage).find(({ id }) => id === part);
  return drawn !== undefined && partKindOf(drawn.kind).lossy === true;
};

/** What a part resists in series with itself. */
export function Loss({
  stageId,
  part,
  name,
  ohms,
}: {
  stageId: string;
  part: string;
  name: string;
  ohms: number | undefined;
}) {
  const mark = usePreferences((p) => p.mark);
  return (
    <span className={styles.loss}>
      loss in series{' '}
      <EditableQuantity
        label={`Series resistance of ${name}`}
        value={ohms ?? null}
        kind="ohms"
        mark={mark}
        clearable
        shown={
          ohms === undefined
            ? 'none'
            : formatQuantity(ohms, 'ohms', { unit: true, mark, digits: 2 })
        }
        onCommit={(x) => setLoss(stageId, part, x)}
      />
    </span>
  );
}

export type WoundOf = NonNullable<StagePart['wound']>;

interface WoundProps {
  stageId: string;
  part: string;
  name: string;
  wound: WoundOf;
}

/** Wire and core of a coil. */
export const Wound = memo(function Wound({ stageId, part, name, wound }: WoundProps) {
  const mark = usePreferences((p) => p.mark);
  const change = (its: Partial<WoundOf>) =>
    attempt(() => setWound(stageId, part, { ...wound, ...its }));
  return (
    <>
      <Select
        size="small"
        aria-label={`Wire of ${name}`}
        value={wound.wireMetres}
        options={WIRES.map((value) => ({
          value,
          label: `${formatFixed(1000 * value, 2, mark)} mm`,
        }))}
        onChange={(wireMetres) => change({ wireMetres })}
        popupMatchSelectWidth={false}
      />
      <Select
        size="small"
        aria-label={`Core of ${name}`}
        value={wound.core}
        options={CORE_NAMES.map((value) => ({ value, label: CORES[value].words }))}
        onChange={(core) => change({ core })}
        popupMatchSelectWidth={false}
      />
    </>
  );
});

/** What a coil of a wire comes to, in a few words, or why there is none. */
export function coilFacts(
  henries: number,
  { wireMetres, core }: WoundOf,
  mark: DecimalMark,
): string {
  const mm = (metres: number) => formatFixed(1000 * metres, 0, mark);
  try {
    const coil = windCoil(henries, wireMetres, core);
    return [
      `${Math.round(coil.turns)} turns`,
      formatQuantity(coil.dcrOhms, 'ohms', { unit: true, mark, digits: 2 }),
      `${mm(coil.outerMetres)} × ${mm(coil.lengthMetres)} mm`,
      ...(coil.saturationAmps === undefined
        ? []
        : [`up to ${formatFixed(coil.saturationAmps, 1, mark)} A`]),
      formatFixed(coil.price, 2, mark),
    ].join(' · ');
  } catch (error) {
    return messageOf(error);
  }
}
