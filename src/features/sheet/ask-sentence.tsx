'use client';

import { memo, useMemo } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import {
  DEFAULT_RIPPLE_DB,
  DEFAULT_STOPBAND_DB,
  EDGES,
  hasEdge,
  returnsInStopBand,
  ripplesInPassBand,
  SHAPES,
} from '@/core/response/prototypes';
import {
  ASK_KINDS,
  bandOf,
  centreOf,
  edgeOf,
  hasOrder,
  hasShape,
  liftsByGain,
  mainHz,
  placedBy,
  type Ask,
} from '@/core/design/ask';
import { topologiesFor } from '@/core/design/consistent';
import { topologyOf } from '@/core/topologies';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { changeAsk, changeTopologies } from './actions/ask';
import { AskNotes } from './ask-notes';
import { choicesOf, EDGE_WORDS, KIND_WORDS, orderChoices, SHAPE_WORDS } from './ask-words';
import { ChoiceWord } from './choice-word';
import styles from './ask-sentence.module.css';

/** The ask as a sentence; each marked word is edited where it stands, and the design follows. */
export const AskSentence = memo(function AskSentence({
  ask,
  made,
}: {
  ask: Ask;
  /** Topologies it is built of, in order, apart by spaces. */
  made: string;
}) {
  const shaped = hasShape(ask.kind);
  return (
    <p className={styles.sentence}>
      <ChoiceWord
        label="Kind"
        value={ask.kind}
        choices={choicesOf(KIND_WORDS, ASK_KINDS)}
        onChoose={(kind) => changeAsk({ kind })}
      />{' '}
      <Place ask={ask} />
      {shaped && (
        <>
          ,{' '}
          <ChoiceWord
            label="Shape"
            value={ask.shape}
            choices={choicesOf(SHAPE_WORDS, SHAPES)}
            onChoose={(shape) => changeAsk({ shape })}
          />
          {!ask.limits && <Ripples ask={ask} />}
        </>
      )}
      {hasOrder(ask.kind) && ask.order !== undefined && (
        <>
          ,{' '}
          <ChoiceWord
            label="Order"
            value={ask.order}
            choices={orderChoices(ask)}
            onChoose={(order) => changeAsk({ order })}
          />
        </>
      )}
      {shaped && ask.kind !== 'all-pass' && !ask.limits && (
        <>
          , edge at{' '}
          <ChoiceWord
            label="Edge convention"
            value={edgeOf(ask)}
            choices={choicesOf(
              EDGE_WORDS,
              EDGES.filter((e) => hasEdge(ask.shape, e)),
            )}
            onChoose={(edge) => changeAsk({ edge })}
          />
        </>
      )}
      {ask.limits && (
        <>
          , at most {ask.limits.passDb} dB down there and at least {ask.limits.stopDb} dB from{' '}
          <span className="mono">
            {'stopHz' in ask.limits
              ? formatQuantity(ask.limits.stopHz, 'hertz', { unit: true })
              : `${formatQuantity(ask.limits.stopLowerHz, 'hertz')} and ${formatQuantity(ask.limits.stopUpperHz, 'hertz', { unit: true })}`}
          </span>
        </>
      )}
      {liftsByGain(ask.kind) ? ' by ' : ', gain '}
      <Gain ask={ask} />, as <Build ask={ask} made={made} /> <AskNotes ask={ask} />
    </p>
  );
});

/** One marked number. */
function Marked({
  label,
  value,
  kind,
  change,
}: {
  label: string;
  value: number;
  kind: QuantityKind;
  change: (value: number) => Partial<Ask>;
}) {
  const mark = usePreferences((p) => p.mark);
  return (
    <EditableQuantity
      label={label}
      value={value}
      kind={kind}
      mark={mark}
      shown={formatQuantity(value, kind, { unit: true, mark, digits: 4 })}
      className={styles.number}
      onCommit={(x) => changeAsk(change(x!))}
    />
  );
}

/** Where the response stands: an edge, a band, or a centre and its Q. */
function Place({ ask }: { ask: Ask }) {
  if (ask.limits && 'passLowerHz' in ask.limits)
    return (
      <span className="mono">
        {formatQuantity(ask.limits.passLowerHz, 'hertz')} to{' '}
        {formatQuantity(ask.limits.passUpperHz, 'hertz', { unit: true })}
      </span>
    );
  switch (placedBy(ask.kind)) {
    case 'edge':
      return (
        <Marked
          label="Edge frequency"
          value={mainHz(ask)}
          kind="hertz"
          change={(edgeHz) => ({ edgeHz })}
        />
      );
    case 'band': {
      const { lowerHz, upperHz } = bandOf(ask);
      const band = (change: Partial<Ask>): Partial<Ask> => ({
        lowerHz,
        upperHz,
        centreHz: undefined,
        q: undefined,
        ...change,
      });
      return (
        <>
          <Marked
            label="Lower edge"
            value={lowerHz}
            kind="hertz"
            change={(hz) => band({ lowerHz: hz })}
          />
          {' to '}
          <Marked
            label="Upper edge"
            value={upperHz}
            kind="hertz"
            change={(hz) => band({ upperHz: hz })}
          />
        </>
      );
    }
    case 'centre': {
      const { centreHz, q } = centreOf(ask);
      const centre = (change: Partial<Ask>): Partial<Ask> => ({
        centreHz,
        q,
        lowerHz: undefined,
        upperHz: undefined,
        ...change,
      });
      return (
        <>
          <Marked
            label="Centre frequency"
            value={centreHz}
            kind="hertz"
            change={(hz) => centre({ centreHz: hz })}
          />
          {', Q '}
          <Marked label="Q" value={q} kind="ratio" change={(x) => centre({ q: x })} />
        </>
      );
    }
  }
}

function Ripples({ ask }: { ask: Ask }) {
  return (
    <>
      {ripplesInPassBand(ask.shape) && (
        <>
          {' by '}
          <Marked
            label="Ripple"
            value={ask.rippleDb ?? DEFAULT_RIPPLE_DB}
            kind="decibels"
            change={(rippleDb) => ({ rippleDb })}
          />
        </>
      )}
      {returnsInStopBand(ask.shape) && (
        <>
          {', beyond '}
          <Marked
            label="Stop band"
            value={ask.stopbandDb ?? DEFAULT_STOPBAND_DB}
            kind="decibels"
            change={(stopbandDb) => ({ stopbandDb })}
          />
          {' down'}
        </>
      )}
    </>
  );
}

function Gain({ ask }: { ask: Ask }) {
  const mark = usePreferences((p) => p.mark);
  const lifts = liftsByGain(ask.kind);
  return (
    <EditableQuantity
      label={lifts ? 'Lift' : 'Gain'}
      value={ask.gainDb ?? null}
      kind="decibels"
      mark={mark}
      shown={
        ask.gainDb === undefined
          ? 'as it comes'
          : formatQuantity(ask.gainDb, 'decibels', { unit: true, mark })
      }
      className={ask.gainDb === undefined ? '' : styles.number}
      clearable={!lifts}
      onCommit={(value) => changeAsk({ gainDb: value ?? undefined })}
    />
  );
}

const COUNTS = ['', '', 'two ', 'three ', 'four ', 'five '];

/** What it is built as, and what else it could be. */
function Build({ ask, made: text }: { ask: Ask; made: string }) {
  const able = useMemo(() => topologiesFor(ask), [ask]);
  const made = text.split(' ');
  const current =
    ask.topology ?? able.find((t) => made.includes(t.id))?.id ?? made[made.length - 1] ?? '';
  const shown =
    able.some((t) => t.id === current) || current === '' ? able : [topologyOf(current), ...able];
  const count = COUNTS[made.filter((id) => id === current).length] ?? 'several ';
  return (
    <ChoiceWord
      label="Topology"
      value={current}
      choices={shown.map((t) => ({
        value: t.id,
        word: `${t.id === current ? count : ''}${t.asWords}`,
        line: t.name,
      }))}
      onChoose={(id) => changeTopologies(topologyOf(id))}
    />
  );
}
