import { sketch } from '@/core/drawing/sketch';
import {
  startCapacitor,
  TWO_PI,
  type StageChoice,
  type StageFigures,
  type Values,
} from '../topology';
import type { Why } from '../why';

/*
 * A coil made by a generalised-impedance converter (A. Antoniou, "Realisation of gyrators using
 * operational amplifiers, and their use in RC-active-network synthesis", Proc. IEE 116, 1969):
 * R1, C2, R3, R4, R5 in a row between two op-amps look like L = R1 C2 R3 R5 / R4, tuned by C1 and
 * damped by R6.
 */

export function converterFigures({ R1, R3, R4, R5, R6, C1, C2 }: Values): StageFigures {
  const L = (R1 * C2 * R3 * R5) / R4;
  return {
    f0Hz: 1 / (TWO_PI * Math.sqrt(L * C1)),
    q: R6 * Math.sqrt(C1 / L),
    gain: 1,
    own: { L1: L },
  };
}

export function converterValues(f0Hz: number, q: number, choice?: StageChoice): Values {
  const C = startCapacitor(f0Hz, choice);
  const R = 1 / (TWO_PI * f0Hz * C);
  return { R1: R, R3: R, R4: R, R5: R, R6: q * R, C1: C, C2: C };
}

/** The converter; its input is (8,8), its foot (39,8), its op-amp output of twice the level (27,3). */
const CONVERTER = `10,8 / resistor R1 10,8 right / 14,8 16,8 / capacitor C2 16,8 right / 20,8 22,8 / resistor R3 22,8 right
  26,8 28,8 / resistor R4 28,8 right / 32,8 34,8 / resistor R5 34,8 right / 38,8 39,8
  9,8 9,2 21,2 / 21,4 21,8 / op-amp A1 21,2 plus / 25,3 27,3 27,8
  21,8 21,12 23,12 / 33,8 33,17 22,17 22,14 23,14 / op-amp A2 23,12 minus / 27,13 29,13 29,19 15,19 15,8`;
const FOOT_DOWN = '39,8 39,10 / ground 39,10';
const FOOT_TO_INPUT = '39,8 39,22 0,22 0,8';
const FOLLOWER =
  '9,2 9,-2 31,-2 / op-amp A3 31,-2 plus / 31,0 31,1 36,1 36,-1 / 35,-1 40,-1 / out 40,-1';
const DOUBLED = '27,3 32,3 / out 32,3';

export const CONVERTER_DRAWINGS = {
  band: sketch(`in 0,8 / 0,8 1,8 / resistor R6 1,8 right / 5,8 10,8 / 7,8 7,9 / capacitor C1 7,9 down left / ground 7,13
    ${CONVERTER} / ${FOOT_DOWN} / ${DOUBLED}`),
  high: sketch(`in 0,8 / 0,8 1,8 / capacitor C1 1,8 right / 5,8 10,8 / 7,8 7,9 / resistor R6 7,9 down left / ground 7,13
    ${CONVERTER} / ${FOOT_DOWN} / ${DOUBLED}`),
  low: sketch(`in 0,8 / 4,8 10,8 / 4,8 4,9 / capacitor C1 4,9 down left / ground 4,13 / 7,8 7,9 / resistor R6 7,9 down left
    ground 7,13 / ${CONVERTER} / ${FOOT_TO_INPUT} / ${FOLLOWER}`),
  notch:
    sketch(`in 0,8 / 0,8 1,8 / capacitor C1 1,8 right / 5,8 10,8 / 7,8 7,9 / resistor R6 7,9 down left / ground 7,13
    ${CONVERTER} / ${FOOT_TO_INPUT} / ${FOLLOWER}`),
};

export const CONVERTER_WHY: readonly Why[] = [
  {
    of: 'R1 R3 R4 R5',
    formula: '\\frac{1}{2\\pi @f0 @C1}',
    text: 'Four equal resistors make the coil; R5 trims it.',
  },
  { of: 'C1 C2', text: 'Equal capacitors, chosen first.' },
  {
    of: 'R6',
    formula: '@Q\\sqrt{\\frac{@L1}{@C1}}',
    text: 'Damps the resonance: it alone sets Q.',
  },
  {
    of: 'f0',
    formula: '\\frac{1}{2\\pi\\sqrt{\\frac{@R1 @C2 @R3 @R5}{@R4} @C1}}',
    text: 'The made coil and C1 in resonance.',
  },
  { of: 'Q', formula: '@R6\\sqrt{\\frac{@C1}{@L1}}', text: 'R6 over the reactance.' },
];

export const CONVERTER_WORDS = {
  about:
    'Two op-amps turn resistors and a capacitor into a coil without hum, loss or weight; with C1 it makes a resonance that is tapped in four ways.',
  tuning: 'R5 moves f0 alone, R6 sets Q alone.',
  sensitivity:
    'Low, and it stays low at high Q: the op-amps’ errors nearly cancel when they are of one kind.',
  avoid:
    'The gain is what it is; both op-amps must not clip inside the loop: keep levels 6 dB down.',
} as const;
