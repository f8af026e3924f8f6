import { Button, Input, InputNumber, Progress, Segmented, Switch } from 'antd';
import { useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { Deviations } from '@/core/sheet/schema';
import { USUAL_DEVIATIONS } from '@/core/sheet/usual-deviations';
import { measuredText, measuredWords, readMeasured } from '@/core/spread/measured';
import { usePreferences } from '@/store/preferences';
import { useSession } from '@/store/sheet-session';
import { attempt } from '../shell/tell';
import { changeDeviations } from './actions/parts';
import { countManyBoards, MANY_BOARDS, stopMany, useSpreads } from './spreads';
import styles from './spread.module.css';

/** Tolerances, in the order they are asked for. */
const TOLERANCES = [
  { field: 'resistor', label: 'Resistors within' },
  { field: 'capacitor', label: 'Capacitors within' },
  { field: 'inductor', label: 'Coils within' },
  { field: 'potentiometer', label: 'Potentiometers within' },
  { field: 'opAmp', label: 'Op-amps’ bandwidth within' },
] as const;

/** A great many boards, when they are asked for: the rare ones are only seen among many. */
function Many() {
  const percent = useSpreads(({ many }) =>
    many === null ? null : Math.floor((many / MANY_BOARDS) * 100),
  );
  const boards = useSpreads((s) => (s.spread && !s.stale && !s.counting ? s.spread.boards : 0));
  if (percent !== null)
    return (
      <div className={styles.many}>
        <Progress percent={percent} size="small" aria-label="Boards counted" />
        <Button size="small" onClick={stopMany}>
          Stop
        </Button>
      </div>
    );
  if (boards >= MANY_BOARDS)
    return <p className={styles.quiet}>{boards.toLocaleString('en')} boards are counted.</p>;
  return (
    <Button size="small" disabled={boards === 0} onClick={() => void countManyBoards()}>
      Count {MANY_BOARDS.toLocaleString('en')} boards
    </Button>
  );
}

/** Kinds of which pieces can be measured, in the order they are asked for. */
const MEASURED = [
  { field: 'resistor', label: 'Resistors measured', quantity: 'ohms' },
  { field: 'capacitor', label: 'Capacitors measured', quantity: 'farads' },
  { field: 'inductor', label: 'Coils measured', quantity: 'henries' },
] as const;

interface MeasuredPiecesProps {
  label: string;
  quantity: QuantityKind;
  pieces: readonly number[];
  onCommit: (pieces: number[]) => void;
}

/** What pieces of a kind were off by; taken over when the field is left. */
function MeasuredPieces({ label, quantity, pieces, onCommit }: MeasuredPiecesProps) {
  const mark = usePreferences((p) => p.mark);
  const [text, setText] = useState(() => measuredText(pieces, mark));
  const [problem, setProblem] = useState<string | null>(null);
  const commit = () => {
    try {
      const found = readMeasured(text, quantity, mark);
      setProblem(null);
      if (text !== measuredText(pieces, mark)) onCommit(found);
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      setProblem(messageOf(error));
    }
  };
  return (
    <div className={styles.measured}>
      <Input.TextArea
        size="small"
        rows={1}
        aria-label={`${label}, % off`}
        placeholder={`${label}: −0.4 1.2 %, ${EXAMPLES[quantity]}`}
        value={text}
        status={problem === null ? '' : 'error'}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
      />
      {(problem !== null || pieces.length > 0) && (
        <p className={styles.quiet} role={problem === null ? undefined : 'alert'}>
          {problem ?? measuredWords(pieces, mark)}
        </p>
      )}
    </div>
  );
}

const EXAMPLES: Partial<Record<QuantityKind, string>> = {
  ohms: '10k: 9.98k',
  farads: '10n: 9.87n',
  henries: '1m: 0.98m',
};

/** How far parts are off, for all of the sheet; a part may have a tolerance of its own. */
export function SpreadForm() {
  const deviations = useSession((s) => s.content?.parts.deviations) ?? USUAL_DEVIATIONS;
  const { spread: on, set } = usePreferences();
  const problem = useSpreads((s) => s.problem);
  const change = (part: Partial<Deviations>) =>
    attempt(() => changeDeviations({ ...deviations, ...part }));
  return (
    <div className={styles.form}>
      <label>
        Show what tolerances do
        <Switch size="small" checked={on} onChange={(spread) => set({ spread })} />
      </label>
      {problem !== null && <p className={styles.quiet}>{problem}</p>}
      {TOLERANCES.map(({ field, label }) => (
        <label key={field}>
          {label}
          <InputNumber<number>
            size="small"
            min={0}
            max={90}
            step={1}
            value={Number((deviations[field] * 100).toPrecision(6))}
            suffix="%"
            style={{ width: 96 }}
            onChange={(value) => value !== null && change({ [field]: value / 100 })}
          />
        </label>
      ))}
      <label>
        Values
        <Segmented<Deviations['shape']>
          size="small"
          value={deviations.shape}
          options={[
            { value: 'uniform', label: 'lie evenly' },
            { value: 'normal', label: 'about the middle' },
            { value: 'measured', label: 'as measured' },
          ]}
          onChange={(shape) => change({ shape })}
        />
      </label>
      {deviations.shape === 'measured' &&
        MEASURED.map(({ field, label, quantity }) => (
          <MeasuredPieces
            key={`${field} ${deviations.measured?.[field]?.join(' ')}`}
            label={label}
            quantity={quantity}
            pieces={deviations.measured?.[field] ?? []}
            onCommit={(pieces) => change({ measured: { ...deviations.measured, [field]: pieces } })}
          />
        ))}
      <label>
        Parts of a kind are off together
        <Switch
          size="small"
          checked={deviations.oneReel}
          onChange={(oneReel) => change({ oneReel })}
        />
      </label>
      <label>
        The room is within
        <InputNumber<number>
          size="small"
          min={0}
          max={100}
          value={deviations.kelvins}
          suffix="K"
          style={{ width: 96 }}
          onChange={(value) => value !== null && change({ kelvins: value })}
        />
      </label>
      <Many />
      <p className={styles.quiet}>
        {deviations.shape === 'measured'
          ? 'Each part is like one of the pieces that were measured; where none was, they lie about the middle. '
          : 'About the middle: the tolerance is three standard deviations. '}
        Temperature moves parts of the drawer that have a coefficient.
      </p>
    </div>
  );
}
