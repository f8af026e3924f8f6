import { lazy } from 'react';
import type { Lens } from './lens';

export const drive: Lens = {
  id: 'drive',
  title: 'Drive',
  about: 'How far it can be driven, and what it sings by itself',
  ownKey: true,
  Picture: lazy(() => import('../drive-lens').then((m) => ({ default: m.DriveLens }))),
};
