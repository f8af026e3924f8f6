import { lazy } from 'react';
import type { Lens } from './lens';

export const noise: Lens = {
  id: 'noise',
  title: 'Noise',
  about: 'What hisses at the output, and which part makes it',
  overFrequency: true,
  ownKey: true,
  Picture: lazy(() => import('../noise-lens').then((m) => ({ default: m.NoiseLens }))),
};
