import { create } from 'zustand';
import { messageOf, ReedError } from '@/core/errors';
import type { CircuitFit } from '@/core/fit/fit-circuit';
import { lessTaken, takenBy, type DrawerSupply } from '@/core/fit/stock-of';
import type { FitOptions } from '@/core/sheet/fit-way';
import { refit } from '@/core/sheet/make';
import type { Sheet, Way } from '@/core/sheet/schema';
import { stockOfDrawer } from '@/store/drawer';
import { solvedSheet } from '@/store/open-library';
import {
  amend,
  doneBy,
  edit,
  sheetOf,
  useSession,
  whenEdited,
  type SheetContent,
} from '@/store/sheet-session';
import { engine } from '@/workers/engine';
import { WAY } from './actions/within';

/** How far a choice is off: of a bank the channel that is off most. */
type FitError = Pick<CircuitFit['fitted'], 'worstDb' | 'missed'>;

/** What came of choosing all values together. */
export interface FitOutcome {
  nearest: FitError;
  fitted: FitError;
  /** Whether it was stopped before its end. */
  stopped: boolean;
}

export interface FittingState {
  running: boolean;
  /** Better choices that were found so far. */
  found: number;
  outcome: FitOutcome | null;
  problem: string | null;
}

const NOTHING: FittingState = { running: false, found: 0, outcome: null, problem: null };

/** The fit that is under way, or was last. */
export const useFitting = create<FittingState>()(() => NOTHING);

let stop: AbortController | undefined;
/** How parts were last asked to be chosen. */
let last: { options: FitOptions; fromDrawer: boolean } = { options: {}, fromDrawer: false };

/** Choose values as they were chosen last. */
export const fitAsBefore = (): Promise<void> => fitParts(last.options, last.fromDrawer);

/** Stop choosing; the best choice so far stays. */
export const stopFitting = (): void => stop?.abort();

/** Forget what came of it. */
export const clearFitting = (): void => useFitting.setState(NOTHING);

/**
 * Choose real values for all parts of the path together, or of every channel of a bank; one step of
 * history.
 *
 * @param fromDrawer whether kinds of which the drawer has some are taken from there alone
 */
export async function fitParts(options: FitOptions, fromDrawer = false): Promise<void> {
  last = { options, fromDrawer };
  const sheet = openSheet();
  if (!sheet || useFitting.getState().running) return;
  const { content } = useSession.getState();
  // Choices are made for what stood there when they were asked for.
  const isPresent = () => useSession.getState().content === content;
  useFitting.setState({ ...NOTHING, running: true });
  stop = new AbortController();
  const best = new Map<number, Way>();
  try {
    const results = await chosenWays(sheet, { options, fromDrawer, best, signal: stop.signal });
    if (!isPresent())
      throw new ReedError(
        'range',
        'The sheet was changed while its parts were being fitted: fit them again.',
      );
    doneBy('Fit', () => edit(withFitted(best)));
    useFitting.setState({
      running: false,
      outcome: outcomeOf(results),
      problem: results.length > 0 ? null : 'No part of this path has a value to be chosen.',
    });
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    const isStopped = error.code === 'stopped';
    const keeps = isStopped && best.size > 0 && isPresent();
    if (keeps) doneBy('Fit, stopped', () => edit(withFitted(best)));
    useFitting.setState({
      ...NOTHING,
      problem: keeps
        ? 'Stopped: the best so far is in the circuit.'
        : isStopped
          ? 'Stopped: the circuit is as it was.'
          : messageOf(error),
    });
  }
}

interface Choosing {
  options: FitOptions;
  fromDrawer: boolean;
  /** The best so far of every way, kept up to date. */
  best: Map<number, Way>;
  signal: AbortSignal;
}

/** Choose the parts of the path, or of all channels, which share what the drawer has. */
async function chosenWays(
  sheet: Sheet,
  { options, fromDrawer, best, signal }: Choosing,
): Promise<CircuitFit[]> {
  const chosen = async (way: number, supply: DrawerSupply): Promise<CircuitFit[]> => {
    const input = { sheet, options: { ...options, way, ...supply } };
    const progress = (fitted: Way) => {
      best.set(way, fitted);
      useFitting.setState(({ found }) => ({ found: found + 1 }));
    };
    const { fitted, result } = await engine().run('fit', input, { signal, progress });
    best.set(way, fitted);
    return result ? [result] : [];
  };
  const ways = waysOf(sheet);
  if (!fromDrawer) return (await Promise.all(ways.map((way) => chosen(way, {})))).flat();
  let left: DrawerSupply = await stockOfDrawer();
  if (Object.keys(left.stock ?? {}).length === 0)
    throw new ReedError(
      'range',
      'The drawer has no resistors, capacitors or coils: put some in first, or fit from series.',
    );
  const results: CircuitFit[] = [];
  // One after the other: each has what those before it have left.
  for (const way of ways)
    for (const result of await chosen(way, left)) {
      left = lessTaken(left, takenBy(result.fitted.chosen), options.boards);
      results.push(result);
    }
  return results;
}

/** The path, or every channel of a bank. */
const waysOf = ({ bank, ways }: Pick<Sheet, 'bank' | 'ways'>): number[] =>
  bank ? [...ways.keys()] : [WAY];

function outcomeOf(results: readonly CircuitFit[]): FitOutcome | null {
  if (results.length === 0) return null;
  const worst = (errors: readonly FitError[]): FitError => ({
    worstDb: Math.max(...errors.map((e) => e.worstDb)),
    missed: errors.reduce((sum, e) => sum + e.missed, 0),
  });
  return {
    nearest: worst(results.map((r) => r.nearest)),
    fitted: worst(results.map((r) => r.fitted)),
    stopped: false,
  };
}

let following = false;

/**
 * From now on, whenever the path is designed anew, its values are fitted: they are rounded one by one
 * at first, until those that go together are found, which then take their place within the same step
 * of history.
 */
export function followDesigns(): void {
  if (following) return;
  following = true;
  whenEdited((before, content, how) => {
    // What undo brings back is left as it was.
    if (how !== 'edited' || content.crossover) return;
    const anew =
      content.ask !== before.ask || content.parts !== before.parts || content.bank !== before.bank;
    if (anew && isRounded(content)) void fitWithinStep();
  });
}

/** Whether every value that may be chosen is its exact one, rounded by itself. */
function isRounded({ ways, parts, bank }: SheetContent): boolean {
  const own = waysOf({ ways, bank }).map((w) => ways[w]);
  // What was worked out around known parts of a channel is none of it.
  const free = (all: readonly Way[]) =>
    JSON.stringify(all.map((w) => w.stages.filter((s) => !bank || isFree(s))));
  return free(refit(own, parts)) === free(own);
}

const isFree = ({ parts }: Way['stages'][number]): boolean =>
  Object.values(parts).every((p) => p.chosen === 'fit');

/** Choose values that go together for what the last edit led to, within its step of history. */
export async function fitWithinStep(): Promise<void> {
  const { content } = useSession.getState();
  const sheet = openSheet();
  if (!sheet) return;
  try {
    const ways = await fittedWays(sheet, waysOf(sheet));
    // Values that anybody touched meanwhile are left alone.
    if (useSession.getState().content === content) amend(withFitted(ways));
  } catch (error) {
    // What cannot be fitted stays as it was rounded; its evaluation says what is wrong with it.
    if (!(error instanceof ReedError)) throw error;
  }
}

/** A new sheet with values that go together; as it is where that cannot be done. */
export async function fittedSheet(sheet: Sheet): Promise<Sheet> {
  // A crossover is tuned on its drivers, not brought to a response of its own.
  if (sheet.crossover) return sheet;
  try {
    const ways = await fittedWays(sheet, [...sheet.ways.keys()]);
    return { ...sheet, ...withFitted(ways)(sheet) };
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    return sheet;
  }
}

async function fittedWays(sheet: Sheet, which: readonly number[]): Promise<Map<number, Way>> {
  const fits = which.map(async (way) => {
    const { fitted } = await engine().run('fit', { sheet, options: { way } });
    return [way, fitted] as const;
  });
  return new Map(await Promise.all(fits));
}

function openSheet(): Sheet | null {
  const sheet = sheetOf(useSession.getState());
  return sheet && solvedSheet(sheet);
}

const withFitted =
  (fitted: ReadonlyMap<number, Way>) =>
  (c: Pick<SheetContent, 'ways'>): Pick<SheetContent, 'ways'> => ({
    ways: c.ways.map((way, w) => ({ ...way, stages: fitted.get(w)?.stages ?? way.stages })),
  });
