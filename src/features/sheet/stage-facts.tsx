'use client';

import { Popover } from 'antd';
import { lazy, memo, Suspense } from 'react';
import type { Stage } from '@/core/sheet/schema';
import { texInPath, wordsInPath } from '@/core/sheet/words-in-path';
import { designedAs, partsSinceDesign, valuesOf } from '@/core/sheet/stage';
import type { Explanation } from '@/core/topologies/topology';
import { Tex } from '@/ui/controls/tex';
import { Blocks } from './block-diagram';
import { resetValue } from './actions/parts';
import { TargetFields } from './target-fields';
import { useEvaluated } from './use-evaluation';
import { Coming } from '../shell/coming';
import styles from './stage-facts.module.css';
import words from './word.module.css';

const CellFacts = lazy(() => import('./cell-facts').then((m) => ({ default: m.CellFacts })));

/** Why the numbers of a stage are what they are, and what it is designed for. */
export const StageFacts = memo(function StageFacts({
  stage,
  names,
  focus,
}: {
  stage: Stage;
  names: ReadonlyMap<string, string>;
  focus: string | null;
}) {
  const cell = stage.cell !== undefined;
  if (!cell && !designedAs(stage)) return null;
  const asked = cell ? null : focus;
  return (
    <Popover
      trigger="click"
      placement="top"
      destroyOnHidden
      content={
        cell ? (
          <Suspense fallback={<Coming />}>
            <CellFacts stage={stage} names={names} />
          </Suspense>
        ) : (
          <Facts stage={stage} names={names} focus={focus} />
        )
      }
    >
      <button type="button" className={words.word}>
        Why{asked ? ` ${names.get(asked) ?? asked}` : ''}?
      </button>
    </Popover>
  );
});

const FIGURES: Record<string, string> = {
  f0: 'Corner f₀',
  Q: 'Quality Q',
  gain: 'Gain',
  boost: 'Height',
  depth: 'Depth',
};

function Facts({
  stage,
  names,
  focus,
}: {
  stage: Stage;
  names: ReadonlyMap<string, string>;
  focus: string | null;
}) {
  const topology = designedAs(stage)!;
  const nameOf = (part: string) => names.get(part);
  const inWords = (words: string) => wordsInPath(words, nameOf);
  const truth = useEvaluated((e) => e?.stages.find((s) => s.id === stage.id)?.formulas);
  // Formulas that speak of parts which are no longer there have no numbers.
  const values = partsSinceDesign(stage).gone.length > 0 ? null : valuesOf(stage);
  const figures = values && topology.figures(values);
  const all = values ? topology.explain(values) : [];
  const chosen = focus === null ? all : all.filter((e) => e.of === focus);
  return (
    <div className={styles.facts}>
      {truth && <p role="note">{truth.words}</p>}
      {focus === null && <p>{inWords(topology.about)}</p>}
      {merged(chosen).map((e) => (
        <div key={e.of} className={styles.row}>
          <div className={styles.of}>
            {e.of
              .split(' ')
              .map((of) => names.get(of) ?? FIGURES[of] ?? of)
              .join(', ')}
          </div>
          <div>
            <div className={styles.formula}>
              <Tex formula={`\\displaystyle ${texInPath(e.formula, nameOf)}`} />
            </div>
            <div className={styles.formula}>
              <Tex formula={`\\displaystyle ${e.numbers}`} />
            </div>
            <p>{inWords(e.text)}</p>
            {e.off && <p className={styles.off}>{inWords(e.off)}</p>}
            {e.rule && <p className={styles.rule}>{inWords(e.rule)}</p>}
          </div>
        </div>
      ))}
      {focus !== null && (
        <div className={styles.buttons}>
          <button type="button" onClick={() => resetValue(stage.id, focus, 'exact')}>
            Use the exact value
          </button>
          <button type="button" onClick={() => resetValue(stage.id, focus, 'nearest')}>
            Use the nearest real value
          </button>
        </div>
      )}
      {focus === null && (
        <>
          <Detail title="Tuning" text={inWords(topology.tuning)} />
          <Detail title="Not for" text={inWords(topology.avoid)} />
          <Detail title="Outputs" text={inWords(topology.outputs)} />
          <Detail title="Sensitivity" text={inWords(topology.sensitivity)} />
          {topology.roles && (
            <Detail
              title="Each part is"
              text={Object.entries(topology.roles)
                .map(([id, role]) => `${names.get(id) ?? id} = ${role}`)
                .join(', ')}
            />
          )}
          {topology.blocks && <Blocks blocks={topology.blocks} stage={stage.id} names={names} />}
          {figures && (
            <p className={styles.target}>
              Designed for <TargetFields stage={stage} figures={figures} />; changed here, it no
              longer follows the ask.
            </p>
          )}
        </>
      )}
    </div>
  );
}

function Detail({ title, text }: { title: string; text: string }) {
  return (
    <p>
      <b>{title}.</b> {text}
    </p>
  );
}

/** Parts explained by the same formula stand together. */
function merged(list: readonly Explanation[]): Explanation[] {
  const byFormula = new Map<string, Explanation>();
  for (const e of list) {
    const key = e.formula + e.numbers + (e.off ?? '');
    const same = byFormula.get(key);
    byFormula.set(key, same ? { ...same, of: `${same.of} ${e.of}` } : e);
  }
  return [...byFormula.values()];
}
