'use client';

import { App } from 'antd';
import { useEffect, type ReactNode } from 'react';
import { ReedError, messageOf } from '@/core/errors';
import { storageProblem } from '@/store/problems';

type Messages = ReturnType<typeof App.useApp>['message'];

let messages: Messages | undefined;

/** Lends the application's short messages to actions that are no components. */
export function TellHost() {
  const { message } = App.useApp();
  useEffect(() => {
    messages = message;
  }, [message]);
  return null;
}

/** Say that something was done. With a key, a later message of the same key takes its place. */
export function tell(content: ReactNode, options: { key?: string; seconds?: number } = {}): void {
  const { key, seconds = 3 } = options;
  messages?.open({ type: 'success', content, duration: seconds, ...(key ? { key } : {}) });
}

/** Say that something was not done, and why. */
export function refuse(content: ReactNode, key?: string): void {
  messages?.open({ type: 'warning', content, duration: 8, ...(key ? { key } : {}) });
}

export const unsay = (key: string): void => messages?.destroy(key);

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
