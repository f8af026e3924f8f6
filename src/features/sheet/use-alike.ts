import { useState } from 'react';

/** The first of values that are alike: what is made from it stays as long as they are. */
export function useAlike<T>(value: T, alike: (a: T, b: T) => boolean): T {
  const [kept, setKept] = useState(value);
  if (kept === value || alike(kept, value)) return kept;
  setKept(value);
  return value;
}
