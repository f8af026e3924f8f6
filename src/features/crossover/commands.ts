import { useMemo } from 'react';
import { editView, useSession } from '@/store/sheet-session';
import { useCommands, type Command } from '../shell/commands';
import { attempt } from '../shell/tell';
import { setUi, useUi } from '../sheet/ui-state';
import { useSteady } from '../sheet/use-alike';
import { bypassSlot, moveSlot, removeSlot, turnOver } from './actions';
import { CROSSOVER_LENSES } from './lenses';

/** Lenses have the digits as keys, as far as those go. */
const DIGITS = 10;

/** All slots of the open crossover, way by way. */
const slots = (): string[] =>
  useSession.getState().content?.ways.flatMap((w) => w.stages.map((s) => s.id)) ?? [];

/** The slot that commands act on: the chosen one. */
function withChosen(act: (id: string) => void): () => void {
  return () => {
    const { stageId } = useUi.getState();
    if (stageId !== null && slots().includes(stageId)) attempt(() => act(stageId));
  };
}

function choose(step: number): void {
  const all = slots();
  const here = all.indexOf(useUi.getState().stageId ?? '');
  const next = here < 0 ? (step > 0 ? 0 : all.length - 1) : here + step;
  if (all.length > 0) setUi({ stageId: all[(next + all.length) % all.length], partId: null });
}

/** What can be done with a crossover by name and key, beside what any sheet has. */
export function crossoverCommands(ways: readonly { id: string; name: string }[]): Command[] {
  return [
    ...CROSSOVER_LENSES.map(({ id, title }, n): Command => ({
      id: `lens-${id}`,
      title: `Lens: ${title}`,
      group: 'Lens',
      ...(n < DIGITS ? { keys: `${(n + 1) % DIGITS}` } : {}),
      run: () => editView({ lens: id }),
    })),
    { id: 'next', title: 'Next slot', group: 'Path', keys: 'n', run: () => choose(1) },
    {
      id: 'previous',
      title: 'Previous slot',
      group: 'Path',
      keys: 'shift+n',
      run: () => choose(-1),
    },
    {
      id: 'bypass',
      title: 'Bypass the slot, or put it back',
      group: 'Path',
      keys: 'b',
      run: withChosen(bypassSlot),
    },
    {
      id: 'left',
      title: 'Move the slot towards the amplifier',
      group: 'Path',
      keys: 'alt+left',
      run: withChosen((id) => moveSlot(id, -1)),
    },
    {
      id: 'right',
      title: 'Move the slot towards the driver',
      group: 'Path',
      keys: 'alt+right',
      run: withChosen((id) => moveSlot(id, 1)),
    },
    {
      id: 'remove',
      title: 'Remove the slot',
      group: 'Path',
      keys: 'shift+delete',
      run: withChosen(removeSlot),
    },
    ...ways.map(({ id, name }): Command => ({
      id: `turn-${id}`,
      title: `Turn the driver of ${name} over`,
      group: 'Path',
      run: () => attempt(() => turnOver(id)),
    })),
  ];
}

/** Offer them while a crossover is on screen. */
export function useCrossoverCommands(ways: readonly { id: string; name: string }[]): void {
  const named = useSteady(ways.map(({ id, name }) => ({ id, name })));
  const commands = useMemo(() => crossoverCommands(named), [named]);
  useCommands('crossover', commands);
}
