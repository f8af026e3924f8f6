import { useCallback, useMemo } from 'react';
import { networkDrawing, waysDrawnAlike } from '@/core/crossover/network-drawing';
import { networkLabels } from '@/core/crossover/network-labels';
import { splitComposedId } from '@/core/sheet/path-drawing';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { Schematic } from '@/ui/schematic/schematic';
import { ValueEditor } from '../sheet/value-editor';
import { useAlike } from '../sheet/use-alike';
import { setUi, useUi } from '../sheet/ui-state';
import { setPart } from './actions';
import { PartFoot } from './part-foot';
import panel from '../sheet/circuit-panel.module.css';

const COUNTS = ['no way', 'one way', 'two ways', 'three ways', 'four ways'];

/** The whole network from amplifier to drivers; every value is edited where it stands. */
export function NetworkPanel({ sheet }: { sheet: Sheet }) {
  const { mark, resistors } = usePreferences();
  const partId = useUi((s) => s.partId);
  const editing = useUi((s) => s.editingPart);
  const { ways } = sheet;
  const drawn = useAlike(ways, waysDrawnAlike);
  const drawing = useMemo(() => networkDrawing(drawn), [drawn]);
  const labels = useMemo(() => networkLabels(ways, mark), [ways, mark]);
  const editor = useCallback(
    (id: string) => (
      <ValueEditor
        key={id}
        id={id}
        stages={ways.flatMap((w) => w.stages)}
        name={labels[id]?.name}
        onValue={setPart}
      />
    ),
    [ways, labels],
  );
  const parts = ways.reduce(
    (n, w) =>
      n + w.stages.filter((s) => !s.bypassed).reduce((m, s) => m + Object.keys(s.parts).length, 0),
    0,
  );
  return (
    <section className={panel.panel} aria-label="Network">
      <div className={panel.head}>
        <span className={panel.what}>
          Whole network · {COUNTS[ways.length]}, {parts} {parts === 1 ? 'part' : 'parts'}
        </span>
      </div>
      <div className={panel.drawing}>
        <Schematic
          title="Schematic of the network"
          drawing={drawing}
          labels={labels}
          resistors={resistors}
          selected={partId}
          editing={editing}
          onSelect={select}
          onEdit={edit}
          onPoint={ignore}
          editor={editor}
        />
      </div>
      <PartFoot sheet={sheet} partId={partId} name={partId ? labels[partId]?.name : undefined} />
    </section>
  );
}

const select = (id: string) => setUi({ partId: id, stageId: splitComposedId(id).stageId });
const edit = (id: string, hasValue: boolean) => setUi(hasValue ? { editingPart: id } : {});
const ignore = () => undefined;
