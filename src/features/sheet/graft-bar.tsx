'use client';

import { lazy, useState } from 'react';
import { isChosenKind } from '@/core/fit/supply';
import { partKindOf } from '@/core/parts';
import type { Control, Stage } from '@/core/sheet/schema';
import { designedAs, drawnParts } from '@/core/sheet/stage';
import { tidied } from '@/core/sheet/tidy';
import { FormPopover } from '../shell/form-popover';
import { attempt, tell } from '../shell/tell';
import { addControl } from './actions/controls';
import { graftStage, redraw, ungraft } from './actions/wiring';
import { moveOnGrid } from './move-part';
import { setUi, type Grafting } from './ui-state';
import styles from './graft-sentence.module.css';

const MadeForm = lazy(() => import('./made-form').then((m) => ({ default: m.MadeForm })));
const KnobForm = lazy(() => import('./knob-form').then((m) => ({ default: m.KnobForm })));

interface GraftBarProps {
  stage: Stage;
  /** The chosen part of it, if any. */
  part: string | null;
  names: ReadonlyMap<string, string>;
  controls: readonly Control[];
}

/** What can be done to the circuit where it stands: at the chosen part, and from a point. */
export function GraftBar({ stage, part, names, controls }: GraftBarProps) {
  const begin = (grafting: Grafting) => setUi({ grafting, editingPart: null });
  return (
    <div className={styles.bar} role="toolbar" aria-label="Change the circuit">
      {part !== null && (
        <OnPart
          stage={stage}
          part={part}
          name={names.get(part) ?? part}
          names={names}
          controls={controls}
          begin={begin}
        />
      )}
      <span>From a point:</span>
      <Do onDo={() => begin({ do: 'put', ...(part === null ? {} : { part }) })}>put a part …</Do>
      {stage.drawing && (
        <>
          <Do onDo={() => begin({ do: 'listen' })}>listen there</Do>
          <Do onDo={() => begin({ do: 'name' })}>name it</Do>
          <Do onDo={() => begin({ do: 'output' })}>mark an output</Do>
          <Do onDo={() => attempt(() => redraw(stage.id, tidied))}>tidy the drawing</Do>
          {designedAs(stage) && (
            <Do onDo={() => attempt(() => ungraft(stage.id))}>as designed again</Do>
          )}
        </>
      )}
    </div>
  );
}

interface OnPartProps {
  stage: Stage;
  part: string;
  name: string;
  names: ReadonlyMap<string, string>;
  controls: readonly Control[];
  begin: (grafting: Grafting) => void;
}

function OnPart({ stage, part, name, names, controls, begin }: OnPartProps) {
  const [knobbing, setKnobbing] = useState(false);
  const drawn = drawnParts(stage).find((p) => p.id === part);
  if (!drawn) return null;
  const { symbol, quantities } = partKindOf(drawn.kind);
  const isTurned = controls.some((c) =>
    c.moves.some((m) => m.stage === stage.id && m.part === part),
  );
  const gone = (words: string, doIt: () => void) => {
    if (!attempt(doIt)) return;
    setUi({ partId: null });
    tell(`${name} ${words}`);
  };
  return (
    <>
      <span>On {name}:</span>
      <Do onDo={() => begin({ do: 'across', part })}>across it</Do>
      <Do onDo={() => begin({ do: 'in-line', part })}>in line</Do>
      <Do onDo={() => begin({ do: 'swap', part })}>swap for …</Do>
      {symbol.pins.length === 2 && (
        <Do onDo={() => gone('is a wire now', () => graftStage(stage.id, { do: 'short', part }))}>
          short
        </Do>
      )}
      <Do onDo={() => gone('is taken out', () => graftStage(stage.id, { do: 'remove', part }))}>
        take out
      </Do>
      {stage.drawing && <Do onDo={() => moveOnGrid(stage.id, part, 'turned')}>turn round</Do>}
      {drawn.kind === 'resistor' && (
        <FormPopover
          open={knobbing}
          onOpenChange={setKnobbing}
          content={
            <KnobForm stage={stage} part={part} names={names} onDone={() => setKnobbing(false)} />
          }
        >
          <button type="button">make it a knob …</button>
        </FormPopover>
      )}
      {isChosenKind(drawn.kind) && (
        <FormPopover content={<MadeForm stage={stage} part={part} name={name} />}>
          <button type="button">make it up of …</button>
        </FormPopover>
      )}
      {!isTurned && quantities.some((q) => q.name === 'turn') && (
        <Do onDo={() => attempt(() => addControl(stage.id, part, name))}>turn it by a knob</Do>
      )}
    </>
  );
}

function Do({ onDo, children }: { onDo: () => void; children: string }) {
  return (
    <button type="button" onClick={onDo}>
      {children}
    </button>
  );
}
