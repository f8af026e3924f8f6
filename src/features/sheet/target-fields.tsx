'use client';

import { formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { Stage } from '@/core/sheet/schema';
import { designedAs } from '@/core/sheet/stage';
import { isFlat, type StageFigures } from '@/core/topologies/topology';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { changeStart, retargetStage } from './actions/targets';

const OWN_WORDS: Record<string, string> = {
  taper: 'taper',
  K: 'gain',
  spread: 'break points apart',
  bass: 'bass at',
  treble: 'treble at',
};

/** Every figure that a stage is designed for, and what its values start from, each edited in place. */
export function TargetFields({ stage, figures }: { stage: Stage; figures: StageFigures }) {
  const topology = designedAs(stage);
  const { target } = stage;
  if (!topology || !target) return null;
  const { limits } = topology;
  const change = (c: Parameters<typeof retargetStage>[1]) => retargetStage(stage.id, c);
  return (
    <>
      {!isFlat(topology) && (
        <Field
          label="Designed corner"
          value={target.f0Hz}
          kind="hertz"
          onCommit={(f0Hz) => change({ f0Hz })}
        />
      )}
      {limits.q && target.q !== undefined && (
        <>
          {', Q '}
          <Field label="Designed Q" value={target.q} onCommit={(q) => change({ q })} />
        </>
      )}
      {limits.zero && (
        <>
          {', zero at '}
          <Field
            label="Designed zero"
            value={target.zeroHz ?? target.f0Hz}
            kind="hertz"
            onCommit={(zeroHz) => change({ zeroHz })}
          />
        </>
      )}
      {limits.boost && target.boost !== undefined && (
        <>
          {', height '}
          <Field
            label="Designed height"
            value={20 * Math.log10(target.boost)}
            kind="decibels"
            onCommit={(db) => change({ boost: 10 ** (db / 20) })}
          />
        </>
      )}
      {limits.depth && (
        <>
          {', leaving '}
          <Field
            label="Designed depth"
            value={target.depth ?? figures.depth ?? 0}
            onCommit={(depth) => change({ depth })}
          />
        </>
      )}
      {Object.keys(limits.own ?? {}).map((name) => (
        <span key={name}>
          {`, ${OWN_WORDS[name] ?? name} `}
          <Field
            label={`Designed ${OWN_WORDS[name] ?? name}`}
            value={target.own?.[name] ?? figures.own?.[name] ?? 1}
            onCommit={(value) => change({ own: { [name]: value } })}
          />
        </span>
      ))}
      {(topology.gain === 'settable' || topology.gain === 'inverting') && (
        <>
          {isFlat(topology) ? 'gain ' : ', gain '}
          <Field
            label="Designed gain"
            value={target.gain ?? figures.gain}
            onCommit={(gain) => change({ gain })}
          />
        </>
      )}
      {', starting from '}
      <Start stage={stage} what="farads" />
      {' or '}
      <Start stage={stage} what="ohms" />
    </>
  );
}

/** The capacitor or the impedance level that the values are worked out from. */
function Start({ stage, what }: { stage: Stage; what: 'farads' | 'ohms' }) {
  const mark = usePreferences((p) => p.mark);
  const value = stage[what];
  const words = what === 'farads' ? 'a common capacitor' : 'the usual impedance';
  return (
    <EditableQuantity
      label={what === 'farads' ? 'Starting capacitor' : 'Starting impedance'}
      value={value ?? null}
      kind={what}
      mark={mark}
      clearable
      shown={value === undefined ? words : formatQuantity(value, what, { unit: true, mark })}
      onCommit={(x) => changeStart(stage.id, x === null ? {} : { [what]: x })}
    />
  );
}

function Field({
  label,
  value,
  kind = 'ratio',
  onCommit,
}: {
  label: string;
  value: number;
  kind?: QuantityKind;
  onCommit: (value: number) => void;
}) {
  const mark = usePreferences((p) => p.mark);
  return (
    <EditableQuantity
      label={label}
      value={value}
      kind={kind}
      mark={mark}
      shown={formatQuantity(value, kind, { unit: true, mark, digits: 4 })}
      onCommit={(x) => onCommit(x!)}
    />
  );
}
