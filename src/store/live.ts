import { liveQuery } from 'dexie';
import { useEffect, useState } from 'react';

/** The result of a database query, kept up to date with changes from this and other tabs. */
export function useLiveQuery<T>(query: () => Promise<T>): T | undefined {
  const [result, setResult] = useState<T>();
  useEffect(() => {
    const subscription = liveQuery(() => query()).subscribe({
      next: setResult,
      error: () => setResult(undefined),
    });
    return () => subscription.unsubscribe();
  }, [query]);
  return result;
}
