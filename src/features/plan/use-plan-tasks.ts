import { useEffect, useMemo, useState } from 'react';
import { messageOf } from '@/core/errors';
import { inOrder } from '@/core/plan/order';
import { shortages, type Need, type Shortage } from '@/core/plan/shortages';
import type { PlannedTask } from '@/core/plan/task';
import { boardsToBuild, tasksOf, type PlannedSheet } from '@/core/plan/tasks';
import type { PartsLine } from '@/core/sheet/parts-list';
import type { Card } from '@/store/card';
import { solvedByLibrary } from '@/store/library';
import { usePlan } from '@/store/plan';
import { loadSheet } from '@/store/sheets';
import { engine } from '@/workers/engine';
import { useDrawer } from '../drawer/use-drawer';
import { useCards } from '../shelf/use-cards';

/** What a board of a sheet is built of, or why that cannot be told; by the state that it was worked out of. */
type Lists = ReadonlyMap<string, { lines: readonly PartsLine[] } | { problem: string }>;

export interface PlanTasks {
  /** In order; nothing until sheets have been read. */
  tasks: PlannedTask[] | null;
  /** What the drawer lacks; nothing while that is being worked out. */
  lacking: Shortage[] | null;
  /** Sheets by id, for their names. */
  titles: ReadonlyMap<string, string>;
  /** Every sheet that could be put on the plan. */
  cards: readonly Card[];
  /** Sheets of which parts cannot be told, and why. */
  problems: string[];
}

/** Everything that is to be done, kept up to date with sheets, boards, drawer and plan. */
export function usePlanTasks(): PlanTasks {
  const plan = usePlan();
  const { contents } = useDrawer();
  const cards = useCards();
  const there = useMemo(() => (cards ?? []).filter((c) => c.deletedAt === null), [cards]);
  const planned = useMemo(
    () =>
      there
        .filter((c) => (c.boards ?? []).length > 0 || plan.wanted[c.id] !== undefined)
        // Who was wanted first takes from the drawer first.
        .sort((a, b) => (plan.wanted[a.id]?.at ?? '').localeCompare(plan.wanted[b.id]?.at ?? '')),
    [there, plan.wanted],
  );
  const bare = useMemo(
    () =>
      planned.map((c): PlannedSheet => ({
        id: c.id,
        title: c.title,
        boards: c.boards ?? [],
        parts: null,
      })),
    [planned],
  );
  const building = useMemo(
    () => planned.filter((_, i) => boardsToBuild(bare[i], plan) > 0),
    [planned, bare, plan],
  );
  const lists = usePartsLists(building);
  return useMemo(() => {
    const needs = building.flatMap((c): Need[] => {
      const list = lists.get(keyOf(c));
      if (!list || !('lines' in list)) return [];
      const boards = boardsToBuild(
        bare.find((s) => s.id === c.id)!,
        plan,
      );
      return [{ sheet: c.id, title: c.title, boards, lines: list.lines }];
    });
    const isCounted = building.every((c) => lists.has(keyOf(c)));
    const lacking = contents && isCounted ? shortages(needs, contents.entries) : null;
    const sheets = bare.map((s) => {
      const lines = needs.find((n) => n.sheet === s.id)?.lines;
      return { ...s, parts: lines ? lines.reduce((sum, l) => sum + l.each, 0) : null };
    });
    const problems = building.flatMap((c) => {
      const list = lists.get(keyOf(c));
      return list && 'problem' in list ? [`${c.title}: ${list.problem}`] : [];
    });
    return {
      tasks: cards ? inOrder(tasksOf(sheets, plan, lacking)) : null,
      lacking,
      titles: new Map(there.map((c) => [c.id, c.title])),
      cards: there,
      problems,
    };
  }, [building, lists, contents, bare, plan, cards, there]);
}

/** A sheet in a state of it. */
const keyOf = ({ id, print }: Card): string => `${id} ${print}`;

/** Parts lists of sheets, worked out one after the other beside the page. */
function usePartsLists(cards: readonly Card[]): Lists {
  const [lists, setLists] = useState<Lists>(new Map());
  useEffect(() => {
    const stop = new AbortController();
    const due = cards.filter((c) => !lists.has(keyOf(c)));
    void (async () => {
      for (const card of due) {
        const list = await listOf(card.id, stop.signal);
        if (stop.signal.aborted || list === null) return;
        setLists((known) => new Map(known).set(keyOf(card), list));
      }
    })();
    return () => stop.abort();
    // What is known already is not asked for again.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [cards]);
  return lists;
}

async function listOf(
  id: string,
  signal: AbortSignal,
): Promise<{ lines: readonly PartsLine[] } | { problem: string } | null> {
  try {
    const item = await loadSheet(id);
    if (!item || !('sheet' in item)) return { problem: 'it cannot be read.' };
    const [sheet] = await solvedByLibrary([item.sheet]);
    const { lines } = await engine().run('partsList', { sheet }, { signal });
    return { lines };
  } catch (error) {
    return signal.aborted ? null : { problem: messageOf(error) };
  }
}
