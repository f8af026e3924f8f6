'use client';

import { App, Dropdown, Segmented } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { formatQuantity } from '@/core/quantity/format';
import type { Evaluation } from '@/core/sheet/evaluate';
import { composeDrawing, composedId, splitComposedId } from '@/core/sheet/path-drawing';
import { partNames } from '@/core/sheet/path-circuit';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { topologyOf } from '@/core/topologies';
import { valuedParts } from '@/core/topologies/instantiate';
import { usePreferences } from '@/store/preferences';
import { QuantityInput } from '@/ui/controls/quantity-input';
import { Schematic, schematicSize, type PartLabel } from '@/ui/schematic/schematic';
import { changeParts, setValue } from './actions';
import { StageFacts } from './stage-facts';
import { TrySlider } from './try-slider';
import { setUi, useUi } from './ui-state';
import styles from './circuit-panel.module.css';

/** The schematic of the selected stage or of the whole path, its values edited in place. */
export function CircuitPanel({
  sheet,
  stage,
  evaluation,
}: {
  sheet: Sheet;
  stage: Stage | undefined;
  evaluation: Evaluation | null;
}) {
  const { message } = App.useApp();
  const { mark, resistors } = usePreferences();
  const { wholePath, partId, editingPart } = useUi();
  const stages = sheet.ways[0].stages;
  const shown = useMemo(
    () => (wholePath ? stages : stage ? [stage] : []),
    [wholePath, stages, stage],
  );
  const drawing = useMemo(() => composeDrawing(shown), [shown]);
  const labels = useMemo(
    () => labelsOf(sheet, shown, evaluation, mark),
    [sheet, shown, evaluation, mark],
  );
  const host = useRef<HTMLDivElement>(null);
  const room = useRoom(host);
  const size = schematicSize(drawing);
  const scale = Math.max(
    11.5,
    Math.min(22, (room.width - 8) / size.width, (room.height - 8) / size.height),
  );

  const selected = partId ? splitComposedId(partId) : null;
  const selectedStage = selected && stages.find((s) => s.id === selected.stageId);
  const tryable =
    selectedStage && selected.part in selectedStage.values
      ? { stage: selectedStage, part: selected.part }
      : null;
  const [opAmpMenu, setOpAmpMenu] = useState(false);

  const edit = (id: string) => {
    if (splitComposedId(id).part.startsWith('A')) setOpAmpMenu(true);
    else setUi({ editingPart: id });
  };
  return (
    <section className={styles.panel} aria-label="Circuit">
      <div className={styles.head}>
        <span className={styles.what}>
          {wholePath
            ? 'Whole path'
            : stage
              ? `Stage ${stages.indexOf(stage) + 1} of ${stages.length} · ${topologyOf(stage.topology).name}`
              : 'No stage'}
        </span>
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
      </div>
      <div className={styles.drawing} ref={host}>
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
            scale={scale}
            selected={partId}
            editing={editingPart}
            onSelect={(id) => setUi({ partId: id })}
            onEdit={edit}
            onPoint={(id) => setUi({ pointedPart: id })}
            editor={(id) => {
              const { stageId, part } = splitComposedId(id);
              const value = stages.find((s) => s.id === stageId)?.values[part] ?? null;
              const name = labels[id]?.name ?? part;
              return (
                <QuantityInput
                  key={id}
                  label={`Value of ${name}`}
                  value={value}
                  kind={part.startsWith('C') ? 'farads' : 'ohms'}
                  mark={mark}
                  onCommit={(v) => setValue(stageId, part, v!)}
                  onDone={() => setUi({ editingPart: null })}
                />
              );
            }}
          />
        )}
      </div>
      <div className={styles.foot}>
        {tryable ? (
          <TrySlider
            key={partId}
            sheet={sheet}
            stage={tryable.stage}
            part={tryable.part}
            name={labels[partId!]?.name ?? tryable.part}
            evaluation={evaluation}
          />
        ) : (
          <span className={styles.hint}>
            Point at a part to see what ±10 % of it does; choose it to try values.
          </span>
        )}
        {stage && (
          <StageFacts
            stage={stage}
            names={partNames(stages).get(stage.id)!}
            focus={selected?.stageId === stage.id ? selected.part : null}
          />
        )}
        {shown.some((s) => topologyOf(s.topology).opAmps > 0) && (
          <Dropdown
            trigger={['click']}
            open={opAmpMenu}
            onOpenChange={setOpAmpMenu}
            menu={{
              selectedKeys: [sheet.parts.opAmp.name],
              items: OP_AMPS.map((a) => ({ key: a.name, label: a.name })),
              onClick: ({ key }) => {
                changeParts({ opAmp: structuredClone(OP_AMPS.find((a) => a.name === key)!) });
                void message.info(`Op-amps are now: ${key}`);
              },
            }}
          >
            <button
              type="button"
              className={styles.opAmp}
              aria-label={`Op-amp: ${sheet.parts.opAmp.name}`}
            >
              {sheet.parts.opAmp.name}
            </button>
          </Dropdown>
        )}
      </div>
    </section>
  );
}

/** Names, values, and the exact value where the chosen one departs from it. */
function labelsOf(
  sheet: Sheet,
  shown: readonly Stage[],
  evaluation: Evaluation | null,
  mark: 'point' | 'comma',
): Record<string, PartLabel> {
  const names = partNames(sheet.ways[0].stages);
  const labels: Record<string, PartLabel> = {};
  for (const stage of shown) {
    const own = names.get(stage.id)!;
    const exact = evaluation?.stages.find((s) => s.id === stage.id)?.exact;
    for (const [local, name] of own) labels[composedId(stage.id, local)] = { name };
    for (const { id, kind } of valuedParts(topologyOf(stage.topology))) {
      const quantity = kind === 'capacitor' ? 'farads' : 'ohms';
      const value = stage.values[id];
      const off = exact ? Math.abs(value / exact[id] - 1) : 0;
      labels[composedId(stage.id, id)] = {
        name: own.get(id)!,
        value: formatQuantity(value, quantity, { mark, digits: 4 }),
        note:
          off > 0.004 && exact
            ? `exact ${formatQuantity(exact[id], quantity, { mark, digits: 4 })}`
            : undefined,
      };
    }
  }
  return labels;
}

/** The size a child may take. */
function useRoom(host: React.RefObject<HTMLDivElement | null>): { width: number; height: number } {
  const [room, setRoom] = useState({ width: 440, height: 340 });
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) =>
      setRoom({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    observer.observe(host.current!);
    return () => observer.disconnect();
  }, [host]);
  return room;
}
