import { partKindOf } from '@/core/parts';
import type { Deviations } from './schema';

/** How far usual parts are off. */
export const USUAL_DEVIATIONS: Deviations = {
  resistor: partKindOf('resistor').tolerance,
  capacitor: partKindOf('capacitor').tolerance,
  inductor: partKindOf('inductor').tolerance,
  potentiometer: partKindOf('potentiometer').tolerance,
  opAmp: 0.3,
  shape: 'uniform',
  oneReel: false,
  kelvins: 0,
};
