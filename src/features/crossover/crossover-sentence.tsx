import { SlidersHorizontal } from 'lucide-react';
import { memo, useState } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { Crossover } from '@/core/sheet/crossover-schema';
import { ALIGNMENT_WORDS, ALIGNMENTS, hasOrder, ORDERS } from '@/core/slots/section';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { ChoiceWord } from '../sheet/choice-word';
import { FormPopover } from '../shell/form-popover';
import { changeCrossover, setAmplifiers } from './actions';
import { GangForm } from './gang-form';
import sentence from '../sheet/ask-sentence.module.css';

/** What a crossover is asked for, as a sentence; each marked word is edited where it stands. */
export const CrossoverSentence = memo(function CrossoverSentence({
  crossover,
  amplifiers,
  names,
}: {
  crossover: Crossover;
  /** One for all ways, or one for each. */
  amplifiers: 'one' | 'each';
  /** Of the ways, from the lowest up. */
  names: readonly string[];
}) {
  const { splitsHz, alignment, order, fromHz, toHz, withinDb, leastOhms } = crossover;
  return (
    <p className={sentence.sentence}>
      <ChoiceWord
        label="Amplifiers"
        value={amplifiers}
        choices={AMPLIFIERS}
        onChoose={(value) => setAmplifiers(value === 'each')}
      />
      , split at{' '}
      {splitsHz.map((hz, i) => (
        <span key={i}>
          {i > 0 && ' and '}
          <Marked
            label={splitsHz.length > 1 ? `Split ${i + 1}` : 'Split'}
            value={hz}
            kind="hertz"
            change={(x) => ({ splitsHz: splitsHz.map((old, k) => (k === i ? x : old)) })}
          />
          {amplifiers === 'each' && <Knob split={i} hz={hz} names={names} />}
        </span>
      ))}
      ,{' '}
      <ChoiceWord
        label="Alignment"
        value={alignment}
        choices={ALIGNMENTS.filter((a) => hasOrder(a, order)).map((value) => ({
          value,
          word: ALIGNMENT_WORDS[value],
        }))}
        onChoose={(value) => changeCrossover({ alignment: value })}
      />
      , order{' '}
      <ChoiceWord
        label="Order"
        value={order}
        choices={ORDERS.map((value) => ({ value, word: String(value) }))}
        onChoose={(value) =>
          changeCrossover({
            order: value,
            ...(hasOrder(alignment, value) ? {} : { alignment: 'butterworth' }),
          })
        }
      />
      ; within ±
      <Marked
        label="Within"
        value={withinDb}
        kind="decibels"
        change={(x) => ({ withinDb: x })}
      />{' '}
      from <Marked label="From" value={fromHz} kind="hertz" change={(x) => ({ fromHz: x })} /> to{' '}
      <Marked label="To" value={toHz} kind="hertz" change={(x) => ({ toHz: x })} />, never under{' '}
      <Marked label="Least load" value={leastOhms} kind="ohms" change={(x) => ({ leastOhms: x })} />
    </p>
  );
});

const AMPLIFIERS = [
  {
    value: 'one' as const,
    word: 'One amplifier',
    line: 'One amplifier, the ways behind it: coils and capacitors',
  },
  {
    value: 'each' as const,
    word: 'An amplifier for each way',
    line: 'An amplifier for each way, op-amps before them',
  },
];

/** Opens the form that puts a knob to a split. */
function Knob({ split, hz, names }: { split: number; hz: number; names: readonly string[] }) {
  const [open, setOpen] = useState(false);
  const [lower, upper] = [names[split] ?? '', names[split + 1] ?? ''];
  return (
    <FormPopover
      open={open}
      onOpenChange={setOpen}
      content={
        <GangForm split={split} hz={hz} lower={lower} upper={upper} onDone={() => setOpen(false)} />
      }
    >
      <button
        type="button"
        className={sentence.knob}
        aria-label={`A knob for the split of ${lower} and ${upper}`}
        title="Put a knob to it"
      >
        <SlidersHorizontal size={13} aria-hidden />
      </button>
    </FormPopover>
  );
}

function Marked({
  label,
  value,
  kind,
  change,
}: {
  label: string;
  value: number;
  kind: QuantityKind;
  change: (value: number) => Partial<Crossover>;
}) {
  const mark = usePreferences((p) => p.mark);
  return (
    <EditableQuantity
      label={label}
      value={value}
      kind={kind}
      mark={mark}
      shown={
        kind === 'decibels'
          ? `${formatFixed(value, value < 1 ? 2 : 1, mark)} dB`
          : formatQuantity(value, kind, { unit: true, mark, digits: 4 })
      }
      className={sentence.number}
      onCommit={(x) => changeCrossover(change(x!))}
    />
  );
}
