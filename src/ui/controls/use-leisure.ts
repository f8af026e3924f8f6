import { startTransition, useEffect, useState } from 'react';

/** However busy the page is, what is prepared at leisure is prepared within this time, milliseconds. */
const AT_LAST = 2000;

/**
 * True once the page has had nothing to do for a moment: time to prepare what may be wanted next, so
 * that it opens at once when it is.
 *
 * @param after how long the component stands before leisure is looked for, milliseconds
 */
export function useLeisure(after: number): boolean {
  const [leisure, setLeisure] = useState(false);
  useEffect(() => {
    let idle: number | undefined;
    const begin = () => startTransition(() => setLeisure(true));
    const timer = setTimeout(() => {
      // Not every browser tells when it is idle.
      if (typeof requestIdleCallback === 'undefined') begin();
      else idle = requestIdleCallback(begin, { timeout: AT_LAST });
    }, after);
    return () => {
      clearTimeout(timer);
      if (idle !== undefined) cancelIdleCallback(idle);
    };
  }, [after]);
  return leisure;
}
