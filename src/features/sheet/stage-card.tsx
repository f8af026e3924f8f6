'use client';

import { useSortable } from '@dnd-kit/sortable';
import { Dropdown } from 'antd';
import { Ellipsis } from 'lucide-react';
import { memo } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Evaluation } from '@/core/sheet/evaluate';
import type { Stage } from '@/core/sheet/schema';
import { stageName, stageShort } from '@/core/sheet/stage';
import { usePreferences } from '@/store/preferences';
import { Sparkline } from '@/ui/chart/sparkline';
import { attempt } from '../shell/tell';
import { duplicateStage, moveStage, removeStage, toggleBypass } from './actions/stages';
import { setUi } from './ui-state';
import { useEvaluated } from './use-evaluation';
import styles from './path-strip.module.css';

interface StageCardProps {
  stage: Stage;
  index: number;
  count: number;
  selected: boolean;
}

/** One stage of the path: what it is, what it does, and what can be done with it. */
export const StageCard = memo(function StageCard({
  stage,
  index,
  count,
  selected,
}: StageCardProps) {
  const mark = usePreferences((p) => p.mark);
  const evaluated = useEvaluated((e) => e?.stages.find((s) => s.id === stage.id));
  const inside = useEvaluated((e) => (e ? insideWords(e, stage.id, mark) : null));
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: stage.id,
  });
  const figures = evaluated?.figures;
  const select = () =>
    setUi({ stageId: stage.id, partId: null, editingPart: null, wholePath: false });
  const classes = [
    styles.card,
    selected && styles.selected,
    stage.bypassed && styles.bypassed,
    isDragging && styles.dragging,
  ]
    .filter(Boolean)
    .join(' ');
  return (
    <div
      ref={setNodeRef}
      className={classes}
      style={{ transform: transform ? `translateX(${transform.x}px)` : undefined, transition }}
    >
      <button
        type="button"
        className={styles.body}
        onClick={select}
        {...listeners}
        {...attributes}
        role="button"
        aria-pressed={selected}
      >
        <span className="visually-hidden">
          Stage {index + 1}, {stageName(stage)}:
        </span>
        <span className={styles.name}>{stageShort(stage)}</span>
        <span
          className={`mono ${styles.figures}`}
          title={
            evaluated?.figuresAreAverages
              ? 'Parts that should be equal are not: these are the figures of their averages. The curve is the circuit’s own.'
              : undefined
          }
        >
          {figures &&
            `${evaluated?.figuresAreAverages ? '≈ ' : ''}${formatQuantity(figures.f0Hz, 'hertz', { mark })}${figures.f0Hz < 1000 ? ' Hz' : ''}${figures.q === undefined ? '' : ` · Q ${formatQuantity(figures.q, 'ratio', { mark })}`}`}
        </span>
        <span
          className={stage.bypassed || inside || evaluated?.problem ? styles.warned : styles.quiet}
          title={evaluated?.problem}
        >
          {stage.bypassed
            ? 'bypassed'
            : inside
              ? `inside +${inside} dB`
              : figures
                ? gainWords(figures.gain, mark)
                : (evaluated?.problem ?? '')}
        </span>
        {evaluated?.thumbnail && (
          <Sparkline
            x={evaluated.thumbnail.frequenciesHz}
            y={evaluated.thumbnail.levelDb}
            floor={-24}
            width={44}
            height={34}
            className={styles.curve}
          />
        )}
      </button>
      <StageMenu id={stage.id} index={index} count={count} bypassed={stage.bypassed} />
    </div>
  );
});

interface StageMenuProps {
  id: string;
  index: number;
  count: number;
  bypassed: boolean;
}

const StageMenu = memo(function StageMenu({ id, index, count, bypassed }: StageMenuProps) {
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'bypass', label: bypassed ? 'Put back into the path' : 'Bypass' },
          { key: 'duplicate', label: 'Duplicate' },
          { key: 'left', label: 'Move left', disabled: index === 0 },
          { key: 'right', label: 'Move right', disabled: index === count - 1 },
          { type: 'divider' },
          { key: 'remove', label: 'Remove' },
        ],
        onClick: ({ key }) => {
          attempt(() => {
            if (key === 'bypass') toggleBypass(id);
            if (key === 'duplicate') duplicateStage(id);
            if (key === 'left') moveStage(id, index - 1);
            if (key === 'right') moveStage(id, index + 1);
            if (key === 'remove') removeStage(id);
          });
        },
      }}
    >
      <button type="button" className={styles.more} aria-label={`Actions for stage ${index + 1}`}>
        <Ellipsis size={15} aria-hidden />
      </button>
    </Dropdown>
  );
});

function gainWords(gain: number, mark: 'point' | 'comma'): string {
  const dB = 20 * Math.log10(Math.abs(gain));
  return `${formatFixed(dB, 1, mark)} dB${gain < 0 ? ', inverted' : ''}`;
}

/** Rises of less than this above the end of the path are not worth a word, dB. */
const WORTH_DB = 0.5;

/** How far a stage inside the path rises above its end, as it is printed. */
function insideWords(
  { stages, peaksDb }: Evaluation,
  id: string,
  mark: DecimalMark,
): string | null {
  const heard = stages.filter((s) => s.id in peaksDb);
  const last = heard[heard.length - 1];
  if (!(id in peaksDb) || id === stages[stages.length - 1].id) return null;
  const over = peaksDb[id] - Math.max(0, peaksDb[last.id]);
  return over > WORTH_DB ? formatFixed(over, 1, mark) : null;
}
