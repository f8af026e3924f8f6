import type { Offered } from '@/core/sheet/remedies';
import { edit } from '@/store/sheet-session';
import { fitWithinStep } from '../fitting';
import { withWay } from './within';

/** Do what a remedy says, and choose values anew for what the path is then: one step of history. */
export function applyRemedy({ stages }: Pick<Offered, 'stages'>): void {
  edit((c) => withWay(c, (way) => ({ ...way, stages })));
  void fitWithinStep();
}
