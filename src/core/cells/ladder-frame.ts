import { npnTransistor } from '@/core/parts/kinds/transistor';
import { wiperOf, type CellPart, type CellReason, type CellValues } from './cell';

/*
 * What ladders have in common whatever their rungs are of: a pair of transistors at the foot that makes
 * two currents of the input, four rungs whose sides capacitors join, the difference of the two sides
 * taken and lifted at the top, and a knob that feeds it back to the pair.
 */

export const RUNGS = [1, 2, 3, 4];
/** Height of a rung in the drawing, and of what is below the lowest. */
const PITCH = 8;
const LOWEST = 44;
export const rungY = (n: number): number => LOWEST - n * PITCH;
export const TOP = rungY(4);

const y0 = LOWEST;
const last = TOP + 4;

/** The input, its pad, the pair and the current at its foot. */
export const FOOT = `in 0,${y0} / 0,${y0} 2,${y0} / resistor RI 2,${y0} right / 6,${y0} 12,${y0} / 8,${y0} 8,${y0 + 1} / resistor RA 8,${y0 + 1} down left / ground 8,${y0 + 5}
   npn-transistor QA 12,${y0} right / npn-transistor QB 24,${y0} left flipped
   14,${y0 + 2} 14,${y0 + 4} 22,${y0 + 4} 22,${y0 + 2} / 18,${y0 + 4} 18,${y0 + 5} / current-source IT 18,${y0 + 5} down right / supply VN 18,${y0 + 10} down / 18,${y0 + 9} 18,${y0 + 10}`;

/** Below a rung of either kind: down to the next, joined by its capacitor. */
export const joined = (n: number): string => {
  const y = rungY(n);
  return `14,${y + 2} 14,${y + 6} / 22,${y + 2} 22,${y + 6} / 14,${y + 4} 16,${y + 4} / capacitor C${n} 16,${y + 4} right / 20,${y + 4} 22,${y + 4}`;
};

/** The difference of both sides of the uppermost rung, lifted, and the way back. */
export const OUTPUT = `name l4 15,${last} / name r4 21,${last}
   name l4 32,20 / 32,20 34,20 / op-amp A1 34,20 plus / 38,21 41,21 / 34,22 33,22 33,26 34,26 / resistor R1 34,26 right / 38,26 39,26 39,21
   33,26 33,27 / resistor R2 33,27 down left / ground 33,31
   41,21 42,21 / resistor R3 42,21 right / 46,21 48,21 48,18
   name r4 46,16 / 46,16 50,16 / op-amp A2 50,16 plus / 50,18 48,18 48,22 50,22 / resistor R4 50,22 right / 54,22 56,22 56,17 / 54,17 58,17 / out 58,17
   56,22 56,36 / potentiometer P1 48,36 right flipped / 52,36 56,36 / 48,36 46,36 46,37 / ground 46,37
   50,34 50,32 44,32 44,${y0} 42,${y0} / resistor RQ 38,${y0} right / 24,${y0} 38,${y0} / 30,${y0} 30,${y0 + 1} / resistor RB 30,${y0 + 1} down right / ground 30,${y0 + 5}`;

const [LARGE, SMALL] = [100e3, 2e3];
const PAIRS: CellPart = { model: npnTransistor.models![1] };

/** Values of what ladders have in common. What feeds the difference is the same on both sides, or the common volts of the ladder come through. */
export const ladderParts = (
  farads: number,
  amps: number,
  transistors: readonly string[],
): Record<string, CellPart> => ({
  IT: { value: amps },
  VN: { value: -12 },
  VP: { value: 12 },
  CB: { value: 10e-6 },
  R1: { value: SMALL },
  R2: { value: LARGE },
  R3: { value: SMALL },
  R4: { value: LARGE },
  ...Object.fromEntries(RUNGS.map((n) => [`C${n}`, { value: farads }])),
  ...Object.fromEntries(['QA', 'QB', ...transistors].map((q) => [q, PAIRS])),
});

/** Of the difference taken at the top. */
export const liftOf = (v: CellValues): number => 1 + v('R4') / v('R3');

/** How often what comes out, `gain` times what the bases are given, goes back to them. */
export function loopOf(v: CellValues, gain: number): number {
  const { turn, ohms } = wiperOf(v);
  return (turn * gain * v('RB')) / (v('RQ') + ohms + v('RB'));
}

/** What is left of the input at the bases. */
export const padOf = (v: CellValues): number => v('RA') / (v('RA') + v('RI'));

/** What is to be known of the pad, the difference and the way back; the loop sings at so many times. */
export function frameReasons(
  v: CellValues,
  { gain, singsAt }: { gain: number; singsAt: number },
): CellReason[] {
  return [
    {
      of: 'RI RA',
      text: 'They leave of the input what the pair takes before it bends: some fifty millivolts.',
      formula: '\\frac{R_A}{R_I + R_A}',
      numbers: `\\frac{1}{${(1 / padOf(v)).toPrecision(4)}}`,
    },
    {
      of: 'A1 A2 R3 R4',
      text: 'Two amplifiers take the difference of both sides and lift it; what both sides do alike goes out as long as R1 / R2 and R3 / R4 are equal.',
      formula: '1 + R_4 / R_3',
      numbers: liftOf(v).toPrecision(4),
    },
    {
      of: 'P1 RQ RB',
      text: `The way back: what the knob lets through comes to the other base. At ${singsAt} times round it sings, and the bottom falls by one more than the times it goes round.`,
      formula: 'k = x \\cdot A \\cdot \\frac{R_B}{R_Q + x(1-x) P_1 + R_B}',
      numbers: `k = ${loopOf(v, gain).toPrecision(4)}`,
    },
  ];
}
