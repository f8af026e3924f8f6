import { lazy } from 'react';
import type { Lens } from './lens';

export const difference: Lens = {
  id: 'difference',
  title: 'Difference',
  about: 'What makes the built filter other than the ideal one, term by term',
  overFrequency: true,
  ownKey: true,
  Picture: lazy(() => import('../difference-lens').then((m) => ({ default: m.DifferenceLens }))),
};
