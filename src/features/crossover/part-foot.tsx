import { useState } from 'react';
import { formatFixed } from '@/core/quantity/format';
import { splitComposedId } from '@/core/sheet/path-drawing';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { Slider } from '@/ui/controls/slider';
import { attempt } from '../shell/tell';
import { setPart } from './actions';
import { coilFacts, isLossy, Loss, Wound } from './part-nature';
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
      {!part.wound && isLossy(stage, chosen.part) && (
        <Loss
          stageId={stage.id}
          part={chosen.part}
          name={name ?? chosen.part}
          ohms={part.losses?.ohms}
        />
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
