import { create } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { messageOf, ReedError } from '@/core/errors';
import type { ReadingSpread, SpreadResult } from '@/core/spread/spread';
import { usePreferences } from '@/store/preferences';
import { solvedSheet, useOpenLibrary } from '@/store/open-library';
import { sheetOf, useSession } from '@/store/sheet-session';
import { engine } from '@/workers/engine';
import { countMany } from './spread-many';

export interface SpreadState {
  spread: SpreadResult | null;
  problem: string | null;
  /** Readings that it is of, by id, in its order. */
  readings: readonly string[];
  /** True when it has been behind the values beside it for too long. */
  stale: boolean;
  /** True until all boards that are asked for are counted. */
  counting: boolean;
  /** While a great many are counted: how many are. */
  many: number | null;
}

const NOTHING: SpreadState = {
  spread: null,
  problem: null,
  readings: [],
  stale: false,
  counting: false,
  many: null,
};

/** What many boards of the open sheet come to. */
export const useSpreads = create<SpreadState>()(() => NOTHING);

/** What many boards make of a reading; nothing until it is known, or while it is of other values. */
export function useReadingSpread(id: string): { of: ReadingSpread | null; boards: number } {
  return useSpreads(
    useShallow(({ spread, readings, stale }) => ({
      of: stale ? null : (spread?.readings[readings.indexOf(id)] ?? null),
      boards: spread?.boards ?? 0,
    })),
  );
}

/** A band may be this far behind the values, milliseconds. */
export const LATE = 300;
export const LIVE_BOARDS = 1000;
/** So many are counted when they are asked for. */
export const MANY_BOARDS = 100_000;
/** Whatever is drawn by lot of the open sheet is of the same boards. */
export const SEED = 1;

let manyStop: AbortController | undefined;

/** Stop counting a great many; what fewer came to stays. */
export const stopMany = (): void => manyStop?.abort();

/** Count a great many boards of the open sheet; given up when anything about it changes. */
export async function countManyBoards(): Promise<void> {
  const now = asked();
  const { spread: known, stale, counting, many } = useSpreads.getState();
  if (!now || !known || stale || counting || many !== null) return;
  const stop = (manyStop = new AbortController());
  const { sheet, content, library } = now;
  const input = { sheet, boards: MANY_BOARDS, seed: SEED, drawer: library.drawer };
  useSpreads.setState({ many: 0 });
  try {
    const spread = await countMany(input, known, {
      signal: stop.signal,
      progress: (boards) => useSpreads.setState({ many: boards }),
    });
    if (useSession.getState().content === content) useSpreads.setState({ spread });
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    if (error.code !== 'stopped') useSpreads.setState({ problem: messageOf(error) });
  } finally {
    useSpreads.setState({ many: null });
  }
}

let following = false;
let running: { stop: AbortController; shown: boolean } | undefined;
let late: ReturnType<typeof setTimeout> | undefined;

/**
 * From now on work out what tolerances make of the open sheet, whenever it changes. While a value is
 * dragged each state is given up for the next as soon as its first band is there, so that the band
 * follows; when things rest all boards are counted.
 */
export function followSpread(): void {
  if (following) return;
  following = true;
  void workOut();
  useSession.subscribe((after, before) => {
    if (after.frame?.id !== before.frame?.id) {
      stopMany();
      running?.stop.abort();
      useSpreads.setState(NOTHING);
    }
    if (after.content !== before.content || after.frame?.view !== before.frame?.view) changed();
  });
  useOpenLibrary.subscribe((after, before) => {
    if (after.library !== before.library || after.loading !== before.loading) changed();
  });
  usePreferences.subscribe((after, before) => {
    if (after.spread === before.spread) return;
    running?.stop.abort();
    if (after.spread) void workOut();
    else useSpreads.setState(NOTHING);
  });
}

function changed(): void {
  stopMany();
  if (useSpreads.getState().spread)
    late ??= setTimeout(() => useSpreads.setState({ stale: true }), LATE);
  // What has shown nothing yet goes on: else a quick drag would never show a band.
  if (running?.shown) running.stop.abort();
  void workOut();
}

/** What is asked about: the open sheet as it is solved; nothing where there is none to ask about. */
function asked() {
  const { content, frame } = useSession.getState();
  const { library, loading } = useOpenLibrary.getState();
  const sheet = sheetOf({ content, frame });
  if (!sheet || sheet.bank || sheet.crossover || loading || !usePreferences.getState().spread)
    return undefined;
  return { sheet: solvedSheet(sheet, library), content, view: frame?.view, library };
}

async function workOut(): Promise<void> {
  if (running) return;
  for (let now = asked(); now !== undefined; now = asked()) {
    const { sheet, content, view, library } = now;
    const stop = new AbortController();
    const own = { stop, shown: false };
    running = own;
    const show = (spread: SpreadResult, counting: boolean) => {
      if (stop.signal.aborted || useSession.getState().frame?.id !== sheet.id) return;
      own.shown = true;
      const present = useSession.getState().content === content;
      if (present) {
        clearTimeout(late);
        late = undefined;
      }
      useSpreads.setState({
        spread,
        counting,
        problem: null,
        readings: sheet.readings.map((r) => r.id),
        ...(present ? { stale: false } : {}),
      });
      // Values that moved on meanwhile have waited long enough.
      if (!present) stop.abort();
    };
    try {
      const input = { sheet, boards: LIVE_BOARDS, seed: SEED, drawer: library.drawer };
      const all = await engine().run('spread', input, {
        signal: stop.signal,
        progress: (spread) => show(spread, true),
      });
      show(all, false);
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      if (error.code !== 'stopped' && useSession.getState().content === content)
        useSpreads.setState({ ...NOTHING, problem: messageOf(error) });
    } finally {
      running = undefined;
    }
    const after = useSession.getState();
    // What was stopped is asked again, if it is still wanted.
    if (
      !stop.signal.aborted &&
      after.content === content &&
      after.frame?.view === view &&
      useOpenLibrary.getState().library === library
    )
      return;
  }
}
