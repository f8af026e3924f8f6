'use client';

import { useRouter } from 'next/navigation';
import { lazy, Suspense, useCallback, useEffect } from 'react';
import { create } from 'zustand';
import { openWork } from '@/store/open-work';

const LeaveDialog = lazy(() => import('./leave-dialog').then((m) => ({ default: m.LeaveDialog })));

/** Where somebody wanted to go while edits were not stored. */
const useLeaving = create<{ to: string | null }>()(() => ({ to: null }));

/** Go to another screen; asked first when the last edits could not be stored. */
export function useGo(): (to: string) => void {
  const router = useRouter();
  return useCallback(
    (to) => {
      if (openWork().wouldLose() && location.pathname !== to) useLeaving.setState({ to });
      else router.push(to);
    },
    [router],
  );
}

/**
 * Asks before the page is closed or another screen is opened while edits are not stored. Leaving for
 * another screen loses nothing, since storing is tried on from there; closing the page would.
 */
export function LeaveGuard() {
  const router = useRouter();
  const to = useLeaving((s) => s.to);
  useEffect(() => {
    const onClose = (event: BeforeUnloadEvent) => {
      if (openWork().wouldLose()) event.preventDefault();
    };
    const onClick = (event: MouseEvent) => {
      const link = (event.target as Element | null)?.closest?.('a[href]');
      if (!link || event.ctrlKey || event.metaKey || event.shiftKey || event.button !== 0) return;
      const { origin, pathname } = new URL((link as HTMLAnchorElement).href);
      if (origin !== location.origin || pathname === location.pathname || !openWork().wouldLose())
        return;
      if (link.hasAttribute('download')) return;
      event.preventDefault();
      event.stopPropagation();
      useLeaving.setState({ to: pathname });
    };
    window.addEventListener('beforeunload', onClose);
    document.addEventListener('click', onClick, true);
    return () => {
      window.removeEventListener('beforeunload', onClose);
      document.removeEventListener('click', onClick, true);
    };
  }, []);
  if (to === null) return null;
  const stay = () => useLeaving.setState({ to: null });
  return (
    <Suspense>
      <LeaveDialog
        onStay={stay}
        onLeave={() => {
          stay();
          router.push(to);
        }}
      />
    </Suspense>
  );
}
