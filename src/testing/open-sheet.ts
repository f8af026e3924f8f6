import type { Ask } from '@/core/design/ask';
import { makeSheet } from '@/core/sheet/make';
import type { Sheet, Stage } from '@/core/sheet/schema';
import {
  adopt,
  NOTHING_OPEN,
  sessionHistory,
  setQuietly,
  sheetOf,
  useSession,
} from '@/store/session-state';

/*
 * A sheet on the bench of a test: open, with a history of its own, and stored nowhere.
 */

export const AT = '2026-11-23T08:00:00.000Z';

export const LOW_PASS: Ask = {
  kind: 'low-pass',
  shape: 'butterworth',
  order: 4,
  edgeHz: 3400,
  edge: 'half-power',
  gainDb: 0,
};

/** A sheet designed for an ask: two second-order stages where none is said. */
export const newSheet = (ask: Ask = LOW_PASS, change: Partial<Sheet> = {}): Sheet => ({
  ...makeSheet({ id: 'test', title: 'On the bench', ask, at: AT }),
  ...change,
});

export function openNow(sheet: Sheet = newSheet()): Sheet {
  adopt(sheet);
  return sheet;
}

export function closeNow(): void {
  setQuietly(NOTHING_OPEN);
  sessionHistory().clear();
}

/** The open sheet as it is. */
export const present = (): Sheet => sheetOf(useSession.getState())!;
/** The stages of its first path. */
export const stages = (): Stage[] => present().ways[0].stages;
