import { lazy } from 'react';
import type { Lens } from './lens';

export const rest: Lens = {
  id: 'rest',
  title: 'At rest',
  about: 'The voltages, currents and watts of the devices without a signal',
  Picture: lazy(() => import('../rest-lens').then((m) => ({ default: m.RestLens }))),
};
