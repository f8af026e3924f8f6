import { Select } from 'antd';
import { memo, useState } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { splitComposedId } from '@/core/sheet/path-drawing';
import type { Sheet, Stage, StagePart } from '@/core/sheet/schema';
import { CORES, CORE_NAMES, WIRES, windCoil } from '@/core/speaker/coils/wind';
import { messageOf } from '@/core/errors';
import { usePreferences } from '@/store/preferences';
import { Slider } from '@/ui/controls/slider';
import { attempt } from '../shell/tell';
import { setPart, setWound } from './actions';
import panel from '../sheet/circuit-panel.module.css';
import styles from './part-foot.module.css';

/** Percent either way. */
const REACH = 50;

/** What can be done with the chosen part: try values; say what a coil is wound of. */
export function PartFoot({
  sheet,
  partId,
  name,
}: {
  sheet: Sheet;
  partId: string | null;
  name: string | undefined;
}) {
  const mark = usePreferences((p) => p.mark);
  const chosen = partId ? splitComposedId(partId) : null;
  const stage = chosen && sheet.ways.flatMap((w) => w.stages).find((s) => s.id === chosen.stageId);
  const part = chosen && stage?.parts[chosen.part];
  if (!chosen || !stage || !part || part.value === undefined)
    return (
      <div className={panel.foot}>
        <span className={panel.hint}>
          Choose a part to try values; its value is edited where it stands.
        </span>
      </div>
    );
  return (
    <div className={panel.foot}>
      <Try
        key={partId}
        stage={stage}
        part={chosen.part}
        name={name ?? chosen.part}
        value={part.value}
      />
      {part.wound && (
        <span className={styles.wound}>
          <Wound
            stageId={stage.id}
            part={chosen.part}
            name={name ?? chosen.part}
            wound={part.wound}
          />
          <span className={styles.facts}>{coilFacts(part.value, part.wound, mark)}</span>
        </span>
      )}
    </div>
  );
}

/** Turn one part up and down and watch the picture; the whole turn is one step of undo. */
function Try({
  stage,
  part,
  name,
  value,
}: {
  stage: Stage;
  part: string;
  name: string;
  value: number;
}) {
  const mark = usePreferences((p) => p.mark);
  const [base, setBase] = useState({ value, tried: value });
  // Another value came from elsewhere, by tuning or undo: it is what is tried from now on.
  if (value !== base.tried) setBase({ value, tried: value });
  const percent = Math.round((value / base.value - 1) * 1000) / 10;
  return (
    <span className={styles.try}>
      Try <b>{name}</b>
      <Slider
        label={`Try ${name}, percent`}
        min={-REACH}
        max={REACH}
        step={0.5}
        value={Math.max(-REACH, Math.min(REACH, percent))}
        onChange={(p) => {
          const tried = Number((base.value * (1 + p / 100)).toPrecision(6));
          if (attempt(() => setPart(stage.id, part, tried, `try ${stage.id} ${part}`), 'try'))
            setBase({ ...base, tried });
        }}
      />
      <span className="mono">
        {percent > 0 ? '+' : ''}
        {formatFixed(percent, 1, mark)} %
      </span>
    </span>
  );
}

type WoundOf = NonNullable<StagePart['wound']>;

interface WoundProps {
  stageId: string;
  part: string;
  name: string;
  wound: WoundOf;
}

/** Wire and core of a coil. */
const Wound = memo(function Wound({ stageId, part, name, wound }: WoundProps) {
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
function coilFacts(henries: number, { wireMetres, core }: WoundOf, mark: DecimalMark): string {
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
