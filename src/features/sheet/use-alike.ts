import { useMemo, useState } from 'react';

/** The first of values that are alike: what is made from it stays as long as they are. */
export function useAlike<T>(value: T, alike: (a: T, b: T) => boolean): T {
  const [kept, setKept] = useState(value);
  if (kept === value || alike(kept, value)) return kept;
  setKept(value);
  return value;
}

/** The same value as long as it reads the same: what is made from it stays, however often it is listed anew. */
export function useSteady<T>(value: T): T {
  const key = JSON.stringify(value);
  return useMemo(() => JSON.parse(key) as T, [key]);
}
