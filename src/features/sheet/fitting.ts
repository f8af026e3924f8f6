import { create } from 'zustand';
import { messageOf, ReedError } from '@/core/errors';
import type { CircuitFit } from '@/core/fit/fit-circuit';
import { stockOf } from '@/core/fit/stock-of';
import type { FitOptions } from '@/core/sheet/fit-way';
import { refit } from '@/core/sheet/make';
import type { Sheet, Way } from '@/core/sheet/schema';
import { drawerContents } from '@/store/drawer';
import { solvedSheet } from '@/store/open-library';
import {
  amend,
  edit,
  sheetOf,
  useSession,
  whenEdited,
  type SheetContent,
} from '@/store/sheet-session';
import { engine } from '@/workers/engine';
import { WAY } from './actions/within';

/** What came of choosing all values together. */
export interface FitOutcome {
  nearest: CircuitFit['nearest'];
  fitted: CircuitFit['fitted'];
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

/** Stop choosing; the best choice so far stays. */
export const stopFitting = (): void => stop?.abort();

/** Forget what came of it. */
export const clearFitting = (): void => useFitting.setState(NOTHING);

/**
 * Choose real values for all parts of the path together; one step of history.
 *
 * @param fromDrawer whether kinds of which the drawer has some are taken from there alone
 */
export async function fitParts(options: FitOptions, fromDrawer = false): Promise<void> {
  const sheet = openSheet();
  if (!sheet || useFitting.getState().running) return;
  const { content } = useSession.getState();
  useFitting.setState({ ...NOTHING, running: true });
  stop = new AbortController();
  const { signal } = stop;
  let best: Way | undefined;
  let found = 0;
  const put = (way: Way) => {
    // Choices are made for what stood there when it was asked for.
    if (useSession.getState().content !== content)
      throw new ReedError(
        'range',
        'The sheet was changed while its parts were being fitted: fit them again.',
      );
    edit(withFitted(way));
  };
  try {
    const stock = fromDrawer ? await stockOfDrawer() : undefined;
    if (stock && Object.keys(stock).length === 0)
      throw new ReedError(
        'range',
        'The drawer has no resistors, capacitors or coils: put some in first, or fit from series.',
      );
    const { fitted, result } = await engine().run(
      'fit',
      { sheet, options: { ...options, ...(stock ? { stock } : {}) } },
      {
        signal,
        progress: (way) => {
          best = way;
          useFitting.setState({ found: ++found });
        },
      },
    );
    put(fitted);
    useFitting.setState({
      running: false,
      outcome: result ? { ...result, stopped: false } : null,
      problem: result ? null : 'No part of this path has a value to be chosen.',
    });
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    if (error.code === 'stopped' && best) put(best);
    useFitting.setState({
      ...NOTHING,
      problem:
        error.code === 'stopped' ? 'Stopped: the best so far is in the circuit.' : messageOf(error),
    });
  }
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
    if (how !== 'edited' || content.bank) return;
    const anew = content.ask !== before.ask || content.parts !== before.parts;
    if (anew && isRounded(content)) void fitWithinStep();
  });
}

/** Whether every value of the path is its exact one, rounded by itself. */
function isRounded({ ways, parts }: SheetContent): boolean {
  const [way] = ways;
  return JSON.stringify(refit([way], parts)) === JSON.stringify([way]);
}

/** Choose values that go together for what the last edit led to, within its step of history. */
export async function fitWithinStep(): Promise<void> {
  const { content } = useSession.getState();
  const sheet = openSheet();
  if (!sheet) return;
  try {
    const { fitted } = await engine().run('fit', { sheet });
    // Values that anybody touched meanwhile are left alone.
    if (useSession.getState().content === content) amend(withFitted(fitted));
  } catch (error) {
    // What cannot be fitted stays as it was rounded; its evaluation says what is wrong with it.
    if (!(error instanceof ReedError)) throw error;
  }
}

/** A new sheet with values that go together; as it is where that cannot be done. */
export async function fittedSheet(sheet: Sheet): Promise<Sheet> {
  try {
    const ways = await Promise.all(
      sheet.ways.map(
        async (_, way) => (await engine().run('fit', { sheet, options: { way } })).fitted,
      ),
    );
    return { ...sheet, ways };
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    return sheet;
  }
}

/** Kinds of which nothing is left are as if the drawer did not know them. */
async function stockOfDrawer() {
  const { entries } = await drawerContents();
  return stockOf(entries.filter((e) => e.quantity > 0));
}

function openSheet(): Sheet | null {
  const sheet = sheetOf(useSession.getState());
  return sheet && solvedSheet(sheet);
}

const withFitted =
  (fitted: Way) =>
  (c: SheetContent): Pick<SheetContent, 'ways'> => ({
    ways: c.ways.map((way, w) => (w === WAY ? { ...way, stages: fitted.stages } : way)),
  });
