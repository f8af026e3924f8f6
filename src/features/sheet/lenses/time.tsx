import { lazy } from 'react';
import type { Lens } from './lens';

export const time: Lens = {
  id: 'time',
  title: 'Time',
  about: 'What a step, a burst or a sine looks like when it has passed',
  banded: true,
  Picture: lazy(() => import('../time-lens').then((m) => ({ default: m.TimeLens }))),
};
