import type { Drawing } from '@/core/drawing/drawing';
import { sketch } from '@/core/drawing/sketch';

const DIVIDER = `14,8 14,11 15,11 / resistor RF 15,11 right / 19,11 20,11 20,7
  14,11 14,12 / resistor RG 14,12 down right / ground 14,16`;
const FOLLOWER = '14,8 14,11 19,11 19,7';

/**
 * The common drawing of the two-resistor two-capacitor positive-feedback stages; low-pass and
 * high-pass differ in which kind of part stands where, unity gain and set gain in the divider.
 */
export function positiveFeedbackDrawing(
  kind: 'low-pass' | 'high-pass',
  settable: boolean,
): Drawing {
  const parts = ['resistor R', 'capacitor C'];
  const [series, shunt] = kind === 'low-pass' ? parts : parts.reverse();
  return sketch(`in 0,6 / 0,6 1,6 / ${series}1 1,6 right / 5,6 7,6 / ${series}2 7,6 right / 11,6 14,6
    6,6 6,2 9,2 / ${shunt}1 9,2 right / 13,2 20,2 20,7
    12,6 12,8 / ${shunt}2 12,8 down left / ground 12,12
    op-amp A1 14,6 plus / 18,7 22,7 / out 22,7 / ${settable ? DIVIDER : FOLLOWER}`);
}
