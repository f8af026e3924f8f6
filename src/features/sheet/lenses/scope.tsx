import { lazy } from 'react';
import type { Lens } from './lens';

export const scope: Lens = {
  id: 'scope',
  title: 'Scope',
  about: 'Any nets over one cycle, on one scale, before and after an edit',
  ownKey: true,
  Picture: lazy(() => import('../scope-lens').then((m) => ({ default: m.ScopeLens }))),
};
