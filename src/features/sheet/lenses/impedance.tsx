import { lazy } from 'react';
import type { Lens } from './lens';

export const impedance: Lens = {
  id: 'impedance',
  title: 'Impedance',
  about: 'What drives each joint and what it is loaded with',
  overFrequency: true,
  ownKey: true,
  Picture: lazy(() => import('../impedance-lens').then((m) => ({ default: m.ImpedanceLens }))),
};
