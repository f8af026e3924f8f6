import type { ReactNode } from 'react';
import { create } from 'zustand';
import { ReedError, messageOf } from '@/core/errors';
import { storageProblem } from '@/store/problems';

/** A short message on its way to the screen, or one that is to go from it. */
export type Told =
  | {
      type: 'success' | 'warning';
      content: ReactNode;
      /** Seconds. */
      duration: number;
      key?: string;
    }
  | { gone: string };

/** What is yet to be shown; its host is fetched when there is something to say. */
export const useTold = create<{ waiting: readonly Told[]; begun: boolean }>()(() => ({
  waiting: [],
  begun: false,
}));

const say = (told: Told) =>
  useTold.setState(({ waiting }) => ({ waiting: [...waiting, told], begun: true }));

/** Say that something was done. With a key, a later message of the same key takes its place. */
export function tell(content: ReactNode, options: { key?: string; seconds?: number } = {}): void {
  const { key, seconds = 3 } = options;
  say({ type: 'success', content, duration: seconds, ...(key ? { key } : {}) });
}

/** Say that something was not done, and why. */
export function refuse(content: ReactNode, key?: string): void {
  say({ type: 'warning', content, duration: 8, ...(key ? { key } : {}) });
}

export function unsay(key: string): void {
  if (useTold.getState().begun) say({ gone: key });
}

/**
 * Do something that may be refused, and say so in words if it is. Wherever no field stands by to
 * show the reason, actions go through here.
 */
export function attempt(act: () => void, key?: string): boolean {
  try {
    act();
    return true;
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    refuse(messageOf(error), key);
    return false;
  }
}

/** The same for the store: what failed is named by `what`, "“Rumble” was not deleted". */
export async function attemptStored(what: string, act: () => Promise<void>): Promise<boolean> {
  try {
    await act();
    return true;
  } catch (error) {
    refuse(`${what}: ${storageProblem(error)}.`);
    return false;
  }
}
