import { DelayLens } from '../frequency-lens';
import type { Lens } from './lens';

export const delay: Lens = {
  id: 'delay',
  title: 'Delay',
  about: 'How long a burst of each frequency is held up',
  overFrequency: true,
  banded: true,
  Picture: DelayLens,
};
