import { lazy } from 'react';
import type { Lens } from './lens';

export const control: Lens = {
  id: 'control',
  title: 'Control',
  about: 'Where a control takes cut-off, resonance and level, and how far that is from its law',
  overFrequency: true,
  ownKey: true,
  Picture: lazy(() => import('../control-lens').then((m) => ({ default: m.ControlLens }))),
};
