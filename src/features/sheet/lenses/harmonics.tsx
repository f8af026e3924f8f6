import { lazy } from 'react';
import type { Lens } from './lens';

export const harmonics: Lens = {
  id: 'harmonics',
  title: 'Harmonics',
  about: 'What becomes of the harmonics of a note',
  Picture: lazy(() => import('../harmonics-lens').then((m) => ({ default: m.HarmonicsLens }))),
};
