import { lazy } from 'react';
import type { Lens } from './lens';

export const headroom: Lens = {
  id: 'headroom',
  title: 'Headroom',
  about: 'How loud the source may be before anything clips',
  overFrequency: true,
  ownKey: true,
  Picture: lazy(() => import('../headroom-lens').then((m) => ({ default: m.HeadroomLens }))),
};
