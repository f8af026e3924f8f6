import type { Drawing } from '@/core/drawing/drawing';
import { sketch } from '@/core/drawing/sketch';

/**
 * The common drawing of the one-resistor one-capacitor stages; low-pass and high-pass differ in
 * which part stands in the signal path, and a buffered one has a follower behind it.
 */
export function firstOrderDrawing(kind: 'low-pass' | 'high-pass', buffered: boolean): Drawing {
  const parts = ['resistor R1', 'capacitor C1'];
  const [series, shunt] = kind === 'low-pass' ? parts : parts.reverse();
  return sketch(
    buffered
      ? `in 0,2 / 0,2 2,2 / ${series} 2,2 right / 6,2 11,2 / 8,2 8,3 / ${shunt} 8,3 down left / ground 8,7
         op-amp A1 11,2 plus / 11,4 11,7 16,7 16,3 / 15,3 18,3 / out 18,3`
      : `in 0,2 / 0,2 2,2 / ${series} 2,2 right / 6,2 13,2 / out 13,2
         9,2 9,3 / ${shunt} 9,3 down right / ground 9,7`,
  );
}
