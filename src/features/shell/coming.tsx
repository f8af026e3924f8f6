'use client';

import { useEffect } from 'react';
import { useShell } from './commands';

/** Stands in the place of a form that is still being fetched: what is typed meanwhile is no shortcut. */
export function Coming() {
  useEffect(() => {
    useShell.setState(({ coming }) => ({ coming: coming + 1 }));
    return () => useShell.setState(({ coming }) => ({ coming: coming - 1 }));
  }, []);
  return null;
}
