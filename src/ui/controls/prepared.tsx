'use client';

import { Suspense, useState, type ReactNode } from 'react';
import { useLeisure } from './use-leisure';

/**
 * What may be opened next: put up when it is first opened, or before that once the page is at
 * leisure, so that it opens at once. From then on it stays, and closes with its own motion.
 *
 * @param after how long leisure is not looked for, milliseconds
 */
export function Prepared({
  open,
  after,
  meanwhile,
  children,
}: {
  open: boolean;
  after: number;
  /** Shown while it is being fetched. */
  meanwhile?: ReactNode;
  children: ReactNode;
}) {
  const leisure = useLeisure(after);
  const [once, setOnce] = useState(open);
  if (open && !once) setOnce(true);
  return (once || leisure) && <Suspense fallback={meanwhile}>{children}</Suspense>;
}
