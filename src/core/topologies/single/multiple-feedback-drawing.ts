import type { Drawing } from '@/core/drawing/drawing';
import { sketch } from '@/core/drawing/sketch';

/** Which part stands where around a multiple-feedback stage, as a sketch says it: “resistor R1”. */
export interface MultipleFeedbackParts {
  input: string;
  /** From the node behind the input to the inverting input. */
  series: string;
  /** From that node to the output. */
  over: string;
  /** From the inverting input to the output. */
  around: string;
  /** From the node to ground. */
  foot: string;
}

export function multipleFeedbackDrawing(p: MultipleFeedbackParts): Drawing {
  return sketch(`in 0,6 / 0,6 1,6 / ${p.input} 1,6 right / 5,6 7,6 / ${p.series} 7,6 right below
    6,6 6,0 9,0 / ${p.over} 9,0 right / 13,0 20,0 20,7 / 6,6 6,7 / ${p.foot} 6,7 down left / ground 6,11
    11,6 14,6 / 13,6 13,4 14,4 / ${p.around} 14,4 right above / 18,4 20,4
    op-amp A1 14,6 minus / 14,8 14,10 / ground 14,10 / 18,7 22,7 / out 22,7`);
}
