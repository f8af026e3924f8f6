import { lazy } from 'react';
import type { Lens } from './lens';

export const map: Lens = {
  id: 'map',
  title: 'Map',
  about: 'Where the poles and zeros lie',
  Picture: lazy(() => import('../map-lens').then((m) => ({ default: m.MapLens }))),
};
