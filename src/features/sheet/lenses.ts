import type { Lens } from '@/core/sheet/schema';

/** The lenses of a path, the usual ones first; their keys are their places. */
export const PATH_LENSES: readonly { id: Lens; title: string }[] = [
  { id: 'level', title: 'Level' },
  { id: 'phase', title: 'Phase' },
  { id: 'delay', title: 'Delay' },
  { id: 'time', title: 'Time' },
  { id: 'harmonics', title: 'Harmonics' },
  { id: 'map', title: 'Map' },
];
