import type { Lens } from '@/core/sheet/schema';

/** The lenses of a path, the usual ones first; their keys are their places. */
export const PATH_LENSES: readonly { id: Lens; title: string }[] = [
  { id: 'level', title: 'Level' },
  { id: 'phase', title: 'Phase' },
  { id: 'delay', title: 'Delay' },
  { id: 'time', title: 'Time' },
  { id: 'harmonics', title: 'Harmonics' },
  { id: 'map', title: 'Map' },
  { id: 'rest', title: 'At rest' },
];

/** Names the tabs of the lenses and, after them, the panel of the picture. */
export const LENS_BAR = 'lens';

/** What makes an element the panel of a lens's tab. */
export const panelOf = (lens: Lens) => ({
  role: 'tabpanel',
  id: `${LENS_BAR}-panel-${lens}`,
  'aria-labelledby': `${LENS_BAR}-tab-${lens}`,
});
