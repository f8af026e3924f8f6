import { lazy, Suspense } from 'react';
import type { Sheet } from '@/core/sheet/schema';
import { useSolvedSheet } from '@/store/open-library';
import { useListening } from './listening';

const ListenDock = lazy(() => import('./listen-dock').then((m) => ({ default: m.ListenDock })));

/** The dock that lets a sheet be heard, while it is open. */
export function ListeningDock({ sheet }: { sheet: Sheet }) {
  const open = useListening((s) => s.open);
  const solved = useSolvedSheet(sheet);
  return open ? (
    <Suspense>
      <ListenDock sheet={solved} />
    </Suspense>
  ) : null;
}
