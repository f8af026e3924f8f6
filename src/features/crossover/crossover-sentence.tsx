import { memo } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { Crossover } from '@/core/sheet/crossover-schema';
import { ALIGNMENT_WORDS, ALIGNMENTS, hasOrder } from '@/core/slots/section';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { ChoiceWord } from '../sheet/choice-word';
import { changeCrossover } from './actions';
import sentence from '../sheet/ask-sentence.module.css';

const ORDERS = [1, 2, 3, 4];

/** What a crossover is asked for, as a sentence; each marked word is edited where it stands. */
export const CrossoverSentence = memo(function CrossoverSentence({
  crossover,
}: {
  crossover: Crossover;
}) {
  const { splitsHz, alignment, order, fromHz, toHz, withinDb, leastOhms } = crossover;
  return (
    <p className={sentence.sentence}>
      Split at{' '}
      {splitsHz.map((hz, i) => (
        <span key={i}>
          {i > 0 && ' and '}
          <Marked
            label={splitsHz.length > 1 ? `Split ${i + 1}` : 'Split'}
            value={hz}
            kind="hertz"
            change={(x) => ({ splitsHz: splitsHz.map((old, k) => (k === i ? x : old)) })}
          />
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
