import { lazy } from 'react';
import type { Lens } from './lens';

export const travel: Lens = {
  id: 'travel',
  title: 'Travel',
  about: 'What a knob does over the whole of its travel',
  overFrequency: true,
  ownKey: true,
  Picture: lazy(() => import('../travel-lens').then((m) => ({ default: m.TravelLens }))),
};
