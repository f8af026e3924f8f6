import { lazy } from 'react';
import type { Lens } from './lens';

export const bias: Lens = {
  id: 'bias',
  title: 'Bias',
  about: 'How a transistor stage rests and what it does, by rule of thumb and solved',
  ownKey: true,
  Picture: lazy(() => import('../bias-lens').then((m) => ({ default: m.BiasLens }))),
};
