import { sketch } from '@/core/drawing/sketch';

/** A multiple-feedback band-pass (R1 to R3) whose output is added to the input (R4, R5 into R6). */
export const BAND_SUMMED =
  sketch(`in 0,6 / 0,6 1,6 / resistor R1 1,6 right / 5,6 7,6 / capacitor C2 7,6 right below
  6,6 6,0 9,0 / capacitor C1 9,0 right / 13,0 20,0 20,7 / 6,6 6,7 / resistor R2 6,7 down left / ground 6,11
  11,6 14,6 / 13,6 13,4 14,4 / resistor R3 14,4 right above / 18,4 20,4
  op-amp A1 14,6 minus / 14,8 14,10 / ground 14,10 / 18,7 21,7 / tap band 20,7
  resistor R5 21,7 right / 25,7 29,7 / 0,6 0,13 20,13 / resistor R4 20,13 right / 24,13 27,13 27,7
  op-amp A2 29,7 minus / 29,9 29,11 / ground 29,11 / 28,7 28,3 29,3 / resistor R6 29,3 right / 33,3 35,3 35,8
  33,8 38,8 / out 38,8`);
