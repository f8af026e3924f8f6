import { lazy } from 'react';
import type { CrossoverLens } from './lens';

export const board: CrossoverLens = {
  id: 'board',
  title: 'Board',
  about: 'How it is built: where parts lie, what coils share, wiring, steps and cost',
  Picture: lazy(() => import('../board/board-picture').then((m) => ({ default: m.BoardPicture }))),
};
