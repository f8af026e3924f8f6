import { usePreferences } from '@/store/preferences';
import { editView, useSession } from '@/store/sheet-session';
import { TOPOLOGIES } from '@/core/topologies';
import type { Command } from '../shell/commands';
import { setListening, useListening } from '../listen/listening';
import { attempt, attemptStored } from '../shell/tell';
import { addStage, duplicateStage, moveStage, removeStage, toggleBypass } from './actions/stages';
import { fitAgain } from './actions/parts';
import { exportNow, EXPORTS } from './exports';
import { IN_ROW, LENSES } from './lenses';
import type { Lens } from './lenses/lens';
import { setUi, useUi } from './ui-state';

export interface Around {
  undo: () => void;
  redo: () => void;
  toShelf: () => void;
  toParts: () => void;
  toBoard: () => void;
  toBench: () => void;
  toBook: () => void;
  toReport: () => void;
}

/** The stage that commands act on: the chosen one, or the first. */
function chosen(): { id: string; index: number; count: number } | undefined {
  const stages = useSession.getState().content?.ways[0].stages ?? [];
  const index = Math.max(
    0,
    stages.findIndex((s) => s.id === useUi.getState().stageId),
  );
  return stages.length > 0 ? { id: stages[index].id, index, count: stages.length } : undefined;
}

function choose(step: number): void {
  const stages = useSession.getState().content?.ways[0].stages ?? [];
  const here = chosen();
  if (!here) return;
  const next = stages[(here.index + step + stages.length) % stages.length];
  setUi({ stageId: next.id, partId: null, editingPart: null, wholePath: false });
}

/** What can be done with a sheet of any kind. */
export const commonCommands = ({
  undo,
  redo,
  toShelf,
  toParts,
  toBoard,
  toBench,
  toBook,
  toReport,
}: Around): readonly Command[] => [
  { id: 'undo', title: 'Undo', group: 'Sheet', keys: 'mod+z', run: undo },
  { id: 'redo', title: 'Redo', group: 'Sheet', keys: 'mod+shift+z', run: redo },
  {
    id: 'keep',
    title: 'Keep this state',
    group: 'Sheet',
    keys: 'k',
    run: () => setUi({ keeping: true }),
  },
  {
    id: 'parts-list',
    title: 'Parts list',
    group: 'Sheet',
    keys: 'l',
    words: 'bill of materials buy cost stock print',
    run: toParts,
  },
  {
    id: 'stripboard',
    title: 'Plan a stripboard',
    group: 'Sheet',
    words: 'layout board build solder strips holes',
    run: toBoard,
  },
  {
    id: 'compare',
    title: 'Compare two states',
    group: 'Sheet',
    words: 'difference before after keep board file book',
    run: () => setUi({ comparing: true }),
  },
  {
    id: 'margin',
    title: 'Show or hide the margin of the book',
    group: 'Sheet',
    // Plain letters are left to knobs.
    keys: 'mod+b',
    words: 'journal log history changes notes',
    run: () => usePreferences.setState(({ margin }) => ({ margin: !margin })),
  },
  {
    id: 'report',
    title: 'Report: the sheet as a document',
    group: 'Sheet',
    words: 'print markdown send document page',
    run: toReport,
  },
  {
    id: 'book',
    title: 'Open the book',
    group: 'Sheet',
    words: 'journal log history changes notes',
    run: toBook,
  },
  {
    id: 'bench',
    title: 'Go to the bench',
    group: 'Sheet',
    words: 'measure take compare suspects board wrong part sweep',
    run: toBench,
  },
  {
    id: 'listen',
    title: 'Listen to it',
    group: 'Sheet',
    keys: 'e',
    words: 'hear play sound audition',
    run: () => setListening({ open: !useListening.getState().open }),
  },
  { id: 'shelf', title: 'Go to the shelf', group: 'Sheet', keys: 'h', run: toShelf },
  ...EXPORTS.map((e): Command => ({
    id: `export-${e.id}`,
    title: `Export: ${e.title}`,
    group: 'Sheet',
    run: () => void attemptStored('Nothing was exported', () => exportNow(e.id)),
  })),
];

/** Every action of a sheet of one path, by name and key. */
export function sheetCommands(
  around: Around,
  lenses: readonly Lens[] = LENSES,
): readonly Command[] {
  const withChosen = (act: (stage: { id: string; index: number; count: number }) => void) => () => {
    const stage = chosen();
    if (stage) attempt(() => act(stage));
  };
  return [
    ...commonCommands(around),
    {
      id: 'graft',
      title: 'Put a part into the circuit',
      group: 'Sheet',
      keys: 'a',
      run: withChosen(({ id }) =>
        setUi({ stageId: id, wholePath: false, grafting: { do: 'put' } }),
      ),
    },
    {
      id: 'fit',
      title: 'Fit parts: choose series',
      group: 'Sheet',
      keys: 'f',
      run: () => setUi({ fitting: true }),
    },
    {
      id: 'fit-again',
      title: 'Choose all values again',
      group: 'Sheet',
      run: () => attempt(fitAgain),
    },
    {
      id: 'pin',
      title: 'Pin a reading',
      group: 'Sheet',
      keys: 'p',
      run: () => setUi({ pinning: true }),
    },
    ...lenses.map(({ id, title }, n): Command => ({
      id: `lens-${id}`,
      title: `Lens: ${title}`,
      group: 'Lens',
      ...(n < IN_ROW ? { keys: `${n + 1}` } : {}),
      run: () => editView({ lens: id }),
    })),
    {
      id: 'weigh',
      title: 'Weigh up: every way of building it',
      group: 'Sheet',
      keys: 'g',
      run: () => setUi({ weighing: !useUi.getState().weighing }),
    },
    { id: 'next', title: 'Next stage', group: 'Path', keys: 'n', run: () => choose(1) },
    {
      id: 'previous',
      title: 'Previous stage',
      group: 'Path',
      keys: 'shift+n',
      run: () => choose(-1),
    },
    {
      id: 'whole',
      title: 'Draw the whole path, or one stage',
      group: 'Path',
      keys: 'w',
      run: () => setUi({ wholePath: !useUi.getState().wholePath }),
    },
    {
      id: 'bypass',
      title: 'Bypass the stage, or put it back',
      group: 'Path',
      keys: 'b',
      run: withChosen((s) => toggleBypass(s.id)),
    },
    {
      id: 'duplicate',
      title: 'Duplicate the stage',
      group: 'Path',
      keys: 'd',
      run: withChosen((s) => duplicateStage(s.id)),
    },
    {
      id: 'left',
      title: 'Move the stage left',
      group: 'Path',
      keys: 'alt+left',
      run: withChosen((s) => moveStage(s.id, s.index - 1)),
    },
    {
      id: 'right',
      title: 'Move the stage right',
      group: 'Path',
      keys: 'alt+right',
      run: withChosen((s) => moveStage(s.id, s.index + 1)),
    },
    {
      id: 'remove',
      title: 'Remove the stage',
      group: 'Path',
      keys: 'shift+delete',
      run: withChosen((s) => removeStage(s.id)),
    },
    ...TOPOLOGIES.map((t): Command => ({
      id: `add-${t.id}`,
      title: `Add a stage: ${t.name}`,
      group: 'Path',
      run: () =>
        attempt(() =>
          setUi({ stageId: addStage(t, chosen()?.id ?? null), partId: null, wholePath: false }),
        ),
    })),
  ];
}
