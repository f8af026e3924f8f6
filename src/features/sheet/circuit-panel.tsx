'use client';

import { Segmented } from 'antd';
import { lazy, memo, Suspense, useCallback, useMemo, useState } from 'react';
import type { Point } from '@/core/drawing/drawing';
import type { PartLabel } from '@/core/drawing/labels';
import { printPart } from '@/core/parts/quantities';
import type { EvaluatedStage } from '@/core/sheet/evaluate';
import { isMoved, movedParts } from '@/core/sheet/controls';
import { composeDrawing, composedId, splitComposedId } from '@/core/sheet/path-drawing';
import { partNames } from '@/core/sheet/path-circuit';
import type { Sheet, Stage, StagePart } from '@/core/sheet/schema';
import {
  drawnAlike,
  drawnParts,
  outputsOf,
  quantityOfPart,
  stageName,
  valuesOf,
} from '@/core/sheet/stage';
import { usePreferences } from '@/store/preferences';
import { Schematic } from '@/ui/schematic/schematic';
import { setValue } from './actions/parts';
import { pieceWords } from './made-words';
import { StageFacts } from './stage-facts';
import { SupplyChoice } from './supply-choice';
import { ValueEditor } from './value-editor';
import { useAlike } from './use-alike';
import { useEvaluated } from './use-evaluation';
import { cutOffControlOf } from '@/core/sheet/cut-off-control';
import { attempt } from '../shell/tell';
import { giveControl } from './actions/stages';
import { setUi, useUi, type Grafting } from './ui-state';
import styles from './circuit-panel.module.css';
import words from './word.module.css';

/** Whether a stage has transconductors that nothing moves yet. */
const canBeControlled = (sheet: Sheet, stage: Stage): boolean =>
  cutOffControlOf(sheet, stage, 'new') !== undefined;

const graftWords = () => import('./graft-words');
const Controls = lazy(() => graftWords().then((m) => ({ default: m.Controls })));
const GraftArea = lazy(() => graftWords().then((m) => ({ default: m.GraftArea })));
const ModelChoice = lazy(() => graftWords().then((m) => ({ default: m.ModelChoice })));
const OpAmpChoice = lazy(() => graftWords().then((m) => ({ default: m.OpAmpChoice })));
const HeardChoice = lazy(() => graftWords().then((m) => ({ default: m.HeardChoice })));
const TrySlider = lazy(() => import('./try-slider').then((m) => ({ default: m.TrySlider })));

/** The schematic of the selected stage or of the whole path, its values edited in place. */
export function CircuitPanel({ sheet, stage }: { sheet: Sheet; stage: Stage | undefined }) {
  const { mark, resistors } = usePreferences();
  const wholePath = useUi((s) => s.wholePath);
  const partId = useUi((s) => s.partId);
  const editingPart = useUi((s) => s.editingPart);
  const stages = sheet.ways[0].stages;
  const shown = useMemo(
    () => (wholePath ? stages : stage ? [stage] : []),
    [wholePath, stages, stage],
  );
  const drawnShown = useAlike(shown, drawnAlike);
  const drawing = useMemo(() => composeDrawing(drawnShown), [drawnShown]);
  const drawn = useAlike(stages, drawnAlike);
  const names = useMemo(() => partNames(drawn), [drawn]);
  const evaluated = useEvaluated((e) => e?.stages.filter((s) => shown.some((o) => o.id === s.id)));
  const atRest = useUi((s) => s.atRest);
  const { controls, ways } = sheet;
  const controlled = useMemo(
    () => (stage: Stage) => movedParts({ controls, ways }, ways[0], stage),
    [controls, ways],
  );
  const labels = useMemo(
    () => labelsOf(names, shown, controlled, evaluated ?? [], mark, atRest),
    [names, shown, controlled, evaluated, mark, atRest],
  );
  const selected = partId ? splitComposedId(partId) : null;
  const selectedStage = selected && stages.find((s) => s.id === selected.stageId);
  const tryable =
    selectedStage &&
    selected.part in valuesOf(selectedStage) &&
    !isMoved(controls, selectedStage, selected.part)
      ? { stage: selectedStage, part: selected.part }
      : null;
  const said = useUi((s) => s.grafting);
  const markedPlace = useUi((s) => s.markedPlace);
  const lit = useUi((s) => s.litParts);
  // Designed stages are left alone until one of their parts is chosen.
  const graftable = selectedStage ?? (stage?.drawing || said ? stage : undefined);
  // An empty circuit begins with its first part.
  const isEmpty = graftable?.drawing && Object.keys(graftable.parts).length === 0;
  const grafting = said ?? (isEmpty ? FIRST_PART : null);
  const [modelMenu, setModelMenu] = useState(false);

  const edit = useCallback((id: string, hasValue: boolean) => {
    if (hasValue) setUi({ editingPart: id });
    else setModelMenu(true);
  }, []);
  const editor = useCallback(
    (id: string) => (
      <ValueEditor
        key={id}
        id={id}
        stages={stages}
        name={labels[id]?.name}
        moved={controlled}
        onValue={setValue}
      />
    ),
    [stages, labels, controlled],
  );
  return (
    <section className={styles.panel} aria-label="Circuit">
      <div className={styles.head}>
        <span className={styles.what}>
          {wholePath
            ? 'Whole path'
            : stage
              ? `Stage ${stages.indexOf(stage) + 1} of ${stages.length} · ${stageName(stage)}`
              : 'No stage'}
        </span>
        <DrawSwitch wholePath={wholePath} />
      </div>
      <div className={styles.drawing}>
        {shown.length === 0 ? (
          <p className={styles.empty}>
            {stages.length === 0
              ? 'The path has no stage. Add one at the joint above.'
              : 'Choose a stage above.'}
          </p>
        ) : (
          <Schematic
            title={wholePath ? 'Schematic of the path' : 'Schematic of the stage'}
            drawing={drawing}
            labels={labels}
            resistors={resistors}
            selected={partId}
            editing={editingPart}
            onSelect={selectPart}
            onEdit={edit}
            onPoint={pointAt}
            onMove={!wholePath && stage?.drawing ? movePlaced : undefined}
            editor={editor}
            marked={wholePath ? null : markedPlace}
            lit={lit}
          />
        )}
      </div>
      {graftable && (
        <Suspense>
          <GraftArea
            stage={graftable}
            part={selected?.stageId === graftable.id ? selected.part : null}
            names={names.get(graftable.id)!}
            grafting={grafting}
            controls={sheet.controls}
          />
        </Suspense>
      )}
      {sheet.controls.length > 0 && (
        <Suspense>
          <Controls sheet={sheet} />
        </Suspense>
      )}
      <div className={styles.foot}>
        {tryable ? (
          <Suspense fallback={<span className={styles.hint} />}>
            <TrySlider
              key={partId}
              sheet={sheet}
              stage={tryable.stage}
              part={tryable.part}
              name={labels[partId!]?.name ?? tryable.part}
            />
          </Suspense>
        ) : (
          <span className={styles.hint}>
            Point at a part to see what ±10 % of it does; choose it to try values.
            {stage?.drawing && ' Drag it, or Alt and an arrow key, to move it.'}
          </span>
        )}
        {stage && !wholePath && canBeControlled(sheet, stage) && (
          <button
            type="button"
            className={words.word}
            title="A control voltage that moves all its transconductors together"
            onClick={() => attempt(() => giveControl(stage.id))}
          >
            give it a control
          </button>
        )}
        {stage && (
          <StageFacts
            stage={stage}
            names={names.get(stage.id)!}
            focus={selected?.stageId === stage.id ? selected.part : null}
          />
        )}
        {selectedStage && selected && (
          <Suspense>
            <ModelChoice
              key={partId}
              stage={selectedStage}
              part={selected.part}
              name={labels[partId!]?.name ?? selected.part}
              open={modelMenu}
              onOpen={setModelMenu}
            />
          </Suspense>
        )}
        {stage && !wholePath && outputsOf(stage).length > 1 && (
          <Suspense>
            <HeardChoice stage={stage} />
          </Suspense>
        )}
        {shown.some((s) => drawnParts(s).some((p) => p.kind === 'op-amp')) && (
          <>
            <Suspense>
              <OpAmpChoice opAmp={sheet.parts.opAmp} />
            </Suspense>
            <SupplyChoice supply={sheet.parts.supply} />
          </>
        )}
      </div>
    </section>
  );
}

const FIRST_PART: Grafting = { do: 'put' };

const selectPart = (id: string) => setUi({ partId: id });
const movePlaced = (id: string, by: Point) => void graftWords().then((m) => m.moveComposed(id, by));
const pointAt = (id: string | null) => setUi({ pointedPart: id });

const DrawSwitch = memo(function DrawSwitch({ wholePath }: { wholePath: boolean }) {
  return (
    <Segmented<'stage' | 'path'>
      size="small"
      aria-label="Draw"
      value={wholePath ? 'path' : 'stage'}
      onChange={(value) => setUi({ wholePath: value === 'path', editingPart: null })}
      options={[
        { value: 'stage', label: 'Stage' },
        { value: 'path', label: 'Path' },
      ]}
    />
  );
});

/** Names, values, and the exact value where the chosen one departs from it. */
function labelsOf(
  names: ReturnType<typeof partNames>,
  shown: readonly Stage[],
  controlled: (stage: Stage) => ReturnType<typeof movedParts>,
  evaluated: readonly EvaluatedStage[],
  mark: 'point' | 'comma',
  atRest: Readonly<Record<string, string>>,
): Record<string, PartLabel> {
  const labels: Record<string, PartLabel> = {};
  for (const stage of shown) {
    const own = names.get(stage.id)!;
    const exact = evaluated.find((s) => s.id === stage.id)?.exact;
    for (const [local, name] of own)
      labels[composedId(stage.id, local)] = {
        name,
        ...(name in atRest ? { note: atRest[name] } : {}),
      };
    const moved = controlled(stage);
    for (const [id, set] of Object.entries(valuesOf(stage))) {
      const quantity = quantityOfPart(stage, id)!;
      // What a control moves stands at what it is moved to.
      const value = moved.get(id)?.[quantity.name] ?? set;
      const print = (x: number) => printPart(quantity, x, mark);
      labels[composedId(stage.id, id)] = {
        name: own.get(id)!,
        value: print(value),
        note: noteOf(stage.parts[id], value, exact?.[id], print),
      };
    }
  }
  return labels;
}

/** What a rounded value may be away from its exact one; what is further is not its rounding. */
const ROUNDED = { from: 0.004, to: 0.11 };

/** The two parts that make a value up; or the exact value, where the chosen one is it but for rounding. */
function noteOf(
  { made }: StagePart,
  value: number,
  exact: number | undefined,
  print: (value: number) => string,
): string | undefined {
  if (made) return pieceWords(made, print);
  if (exact === undefined) return undefined;
  const off = Math.abs(value / exact - 1);
  return off > ROUNDED.from && off < ROUNDED.to ? `exact ${print(exact)}` : undefined;
}
