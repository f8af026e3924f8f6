import { decade } from './decade';
import { probeLoading, sourceLoading } from './loading';
import type { MistakeKind } from './mistake';
import { missing } from './missing';
import { noGround } from './no-ground';
import { reversed } from './reversed';
import { shorted } from './shorted';
import { slowOpAmp } from './slow-op-amp';
import { swapped } from './swapped';

/** Every kind of mistake that is looked for; of two that are alike, the one before is named. */
export const MISTAKES: readonly MistakeKind[] = [
  decade,
  swapped,
  missing,
  shorted,
  reversed,
  noGround,
  slowOpAmp,
  sourceLoading,
  probeLoading,
];
