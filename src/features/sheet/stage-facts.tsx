'use client';

import { Popover } from 'antd';
import { formatQuantity } from '@/core/quantity/format';
import type { Stage } from '@/core/sheet/schema';
import { topologyOf } from '@/core/topologies';
import type { Explanation } from '@/core/topologies/topology';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/quantity-input';
import { Tex } from '@/ui/controls/tex';
import { resetValue, retargetStage } from './actions';
import styles from './stage-facts.module.css';

/** Why the numbers of a stage are what they are, and what it is designed for. */
export function StageFacts({
  stage,
  names,
  focus,
}: {
  stage: Stage;
  names: ReadonlyMap<string, string>;
  focus: string | null;
}) {
  return (
    <Popover
      trigger="click"
      placement="top"
      destroyOnHidden
      content={<Facts stage={stage} names={names} focus={focus} />}
    >
      <button type="button" className={styles.why}>
        Why{focus ? ` ${names.get(focus) ?? focus}` : ''}?
      </button>
    </Popover>
  );
}

const FIGURES: Record<string, string> = { f0: 'Corner f₀', Q: 'Quality Q', gain: 'Gain' };

function Facts({
  stage,
  names,
  focus,
}: {
  stage: Stage;
  names: ReadonlyMap<string, string>;
  focus: string | null;
}) {
  const mark = usePreferences((p) => p.mark);
  const topology = topologyOf(stage.topology);
  const figures = topology.figures(stage.values);
  const all = topology.explain(stage.values);
  const chosen = focus === null ? all : all.filter((e) => e.of === focus);
  return (
    <div className={styles.facts}>
      {focus === null && <p>{topology.about}</p>}
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
              <Tex formula={e.formula} />
            </div>
            <div className={styles.formula}>
              <Tex formula={e.numbers} />
            </div>
            <p>{e.text}</p>
            {e.rule && <p className={styles.rule}>{e.rule}</p>}
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
          <p>
            <b>Tuning.</b> {topology.tuning}
          </p>
          <p>
            <b>Not for.</b> {topology.avoid}
          </p>
          <p className={styles.target}>
            Designed for{' '}
            <EditableQuantity
              label="Designed corner"
              value={stage.target.f0Hz}
              kind="hertz"
              mark={mark}
              shown={formatQuantity(stage.target.f0Hz, 'hertz', { unit: true, mark, digits: 4 })}
              onCommit={(f0Hz) => retargetStage(stage.id, { f0Hz: f0Hz! })}
            />
            {stage.target.q !== undefined && (
              <>
                {', Q '}
                <EditableQuantity
                  label="Designed Q"
                  value={stage.target.q}
                  kind="ratio"
                  mark={mark}
                  shown={formatQuantity(stage.target.q, 'ratio', { mark, digits: 4 })}
                  onCommit={(q) => retargetStage(stage.id, { q: q! })}
                />
              </>
            )}
            {topology.gain !== 'unity' && (
              <>
                {', gain '}
                <EditableQuantity
                  label="Designed gain"
                  value={stage.target.gain ?? figures.gain}
                  kind="ratio"
                  mark={mark}
                  shown={formatQuantity(stage.target.gain ?? figures.gain, 'ratio', {
                    mark,
                    digits: 4,
                  })}
                  onCommit={(gain) => retargetStage(stage.id, { gain: gain! })}
                />
              </>
            )}
            ; changed here, it no longer follows the ask.
          </p>
        </>
      )}
    </div>
  );
}

/** Parts explained by the same formula stand together. */
function merged(list: readonly Explanation[]): Explanation[] {
  const byFormula = new Map<string, Explanation>();
  for (const e of list) {
    const same = byFormula.get(e.formula + e.numbers);
    byFormula.set(e.formula + e.numbers, same ? { ...same, of: `${same.of} ${e.of}` } : e);
  }
  return [...byFormula.values()];
}
