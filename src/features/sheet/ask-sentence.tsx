'use client';

import { memo } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import { EDGES, hasEdge, SHAPES, type Edge, type Shape } from '@/core/response/prototypes';
import type { Ask } from '@/core/design/ask';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/quantity-input';
import { changeAsk, changeTopologies } from './actions';
import { ChoiceWord, type Choice } from './choice-word';
import styles from './ask-sentence.module.css';

const KINDS: Choice<Ask['kind']>[] = [
  { value: 'low-pass', word: 'everything below', line: 'everything below (low-pass)' },
  { value: 'high-pass', word: 'everything above', line: 'everything above (high-pass)' },
];

const SHAPE_WORDS: Record<Shape, [string, string]> = {
  butterworth: ['flat top', 'flat top (Butterworth)'],
  chebyshev: ['rippled', 'rippled, steeper (Chebyshev)'],
  'inverse-chebyshev': ['flat top, notched', 'flat top, notches beyond (inverse Chebyshev)'],
  elliptic: ['steepest', 'steepest, ripples on both sides (elliptic)'],
  bessel: ['even delay', 'even delay (Bessel)'],
  'linkwitz-riley': ['crossing', 'crossing at −6 dB (Linkwitz-Riley)'],
  'optimum-l': ['always falling', 'always falling, steep (optimum-L)'],
  gaussian: ['Gaussian', 'no overshoot, smooth (Gaussian)'],
  'equal-ripple-phase': ['even phase', 'even phase (equal-ripple phase)'],
  'critically-damped': ['no overshoot', 'no overshoot (critically damped)'],
};

const EDGE_WORDS: Record<Edge, [string, string]> = {
  'half-power': ['−3 dB', '−3 dB, half the power'],
  'half-voltage': ['−6 dB', '−6 dB, half the voltage'],
  ripple: ['the ripple’s end', 'the end of the ripple'],
  asymptote: ['the asymptotes', 'where the asymptotes meet'],
  'unit-delay': ['the delay', 'one over 2π times the delay'],
};

const ORDERS: Choice<number>[] = [1, 2, 3, 4, 5, 6, 7, 8].map((n) => ({
  value: n,
  word: `order ${n}`,
  line: `order ${n}, ${6 * n} dB per octave`,
}));

const COUNTS = ['', '', 'two ', 'three ', 'four '];

/** The ask as a sentence; each marked word is edited where it stands, and the design follows. */
export const AskSentence = memo(function AskSentence({ ask }: { ask: Ask }) {
  const mark = usePreferences((p) => p.mark);
  const order = ask.order === 1 ? 1 : 2;
  const topology = topologyOf(
    ask.topology ?? (order === 1 ? `rc-${ask.kind}` : `unity-${ask.kind}`),
  );
  const count = COUNTS[Math.floor(ask.order / 2)] ?? '';
  const dB = (value: number) => formatQuantity(value, 'decibels', { unit: true, mark });
  return (
    <p className={styles.sentence}>
      Pass{' '}
      <ChoiceWord
        label="Kind"
        value={ask.kind}
        choices={KINDS}
        onChoose={(kind) => changeAsk({ kind })}
      />{' '}
      <EditableQuantity
        label="Edge frequency"
        value={ask.edgeHz}
        kind="hertz"
        mark={mark}
        shown={formatQuantity(ask.edgeHz, 'hertz', { unit: true, mark, digits: 4 })}
        className={styles.number}
        onCommit={(value) => changeAsk({ edgeHz: value! })}
      />
      ,{' '}
      <ChoiceWord
        label="Shape"
        value={ask.shape}
        choices={SHAPES.map((s) => ({
          value: s,
          word: SHAPE_WORDS[s][0],
          line: SHAPE_WORDS[s][1],
        }))}
        onChoose={(shape) => changeAsk({ shape })}
      />
      {ask.shape === 'chebyshev' && (
        <>
          {' by '}
          <EditableQuantity
            label="Ripple"
            value={ask.rippleDb ?? 0.5}
            kind="decibels"
            mark={mark}
            shown={dB(ask.rippleDb ?? 0.5)}
            className={styles.number}
            onCommit={(value) => changeAsk({ rippleDb: value! })}
          />
        </>
      )}
      ,{' '}
      <ChoiceWord
        label="Order"
        value={ask.order}
        choices={ORDERS}
        onChoose={(value) => changeAsk({ order: value })}
      />
      , edge at{' '}
      <ChoiceWord
        label="Edge convention"
        value={ask.edge}
        choices={EDGES.filter((e) => hasEdge(ask.shape, e)).map((e) => ({
          value: e,
          word: EDGE_WORDS[e][0],
          line: EDGE_WORDS[e][1],
        }))}
        onChoose={(edge) => changeAsk({ edge })}
      />
      , gain{' '}
      <EditableQuantity
        label="Gain"
        value={ask.gainDb ?? null}
        kind="decibels"
        mark={mark}
        shown={ask.gainDb === undefined ? 'as it comes' : dB(ask.gainDb)}
        className={ask.gainDb === undefined ? '' : styles.number}
        clearable
        onCommit={(value) => changeAsk({ gainDb: value ?? undefined })}
      />
      , as{' '}
      <ChoiceWord
        label="Topology"
        value={topology.id}
        choices={TOPOLOGIES.filter((t) => t.kind === ask.kind && t.order === order).map((t) => ({
          value: t.id,
          word: `${count}${t.asWords}`,
          line: t.name,
        }))}
        onChoose={(id) => changeTopologies(topologyOf(id))}
      />
    </p>
  );
});
