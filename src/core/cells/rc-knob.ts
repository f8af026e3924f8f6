import { trackPart } from '@/core/circuit/devices/potentiometer';
import { sketch } from '@/core/drawing/sketch';
import { TRACKS } from '@/core/parts/kinds/potentiometer';
import { nearestPreferred } from '@/core/quantity/series';
import { TWO_PI, type Cell, type CellValues } from './cell';

const TRACK = 100e3;
const [, AUDIO] = TRACKS;

/** What of the track is in the way of the signal. */
const ohmsOf = (v: CellValues): number =>
  v('R1') +
  v('P1') * trackPart({ taper: AUDIO.model.taper, turn: v('P1', 'turn'), mismatch: 0 }).part;

export const rcKnob: Cell = {
  id: 'rc-knob',
  name: 'RC with a knob',
  short: 'a track, a capacitor and a buffer',
  drawing:
    sketch(`in 0,8 / 0,8 1,8 / potentiometer P1 1,8 right / 3,10 5,10 5,8 / 5,8 7,8 / resistor R1 7,8 right / 11,8 18,8
    14,8 14,9 / capacitor C1 14,9 down left / ground 14,13
    op-amp A1 18,8 plus / 18,10 17,10 17,13 23,13 23,9 / 22,9 28,9 / out 28,9`),
  limits: { leastHz: 1, mostHz: 100_000 },
  usual: { lowHz: 100, highHz: 8000 },
  ownLaw: true,
  plan(ask) {
    const farads = nearestPreferred(1 / (TWO_PI * ask.lowHz * TRACK), 'E6');
    const stop = nearestPreferred(1 / (TWO_PI * ask.highHz * farads), 'E12');
    return {
      parts: {
        P1: { value: TRACK, more: { turn: 0.4 }, model: AUDIO },
        R1: { value: stop },
        C1: { value: farads },
      },
      controls: [
        {
          for: 'cut-off',
          name: 'Cut-off',
          is: 'turn',
          at: 0.6,
          // Turned up, less of the track is left.
          moves: [{ part: 'P1', quantity: 'turn', from: 1, to: 0, law: 'even' }],
        },
      ],
    };
  },
  textbook: (v) => ({ f0Hz: 1 / (TWO_PI * ohmsOf(v) * v('C1')), gain: 1 }),
  agrees: 1e-3,
  reasons: (v) => [
    {
      of: 'P1 R1 C1',
      text: 'One pole, where the capacitor’s reactance is what is left of the track.',
      formula: 'f_0 = \\frac{1}{2\\pi (R_1 + x P_1) C_1}',
      numbers: `x P_1 + R_1 = ${ohmsOf(v).toPrecision(4)}\\ \\Omega`,
    },
    {
      of: 'R1',
      text: 'What is left at the end of the travel: without it the cut-off would run away there.',
    },
    {
      of: 'A1',
      text: 'Nothing behind loads the track; without it the cut-off and the level would depend on what follows.',
    },
  ],
  about:
    'A resistance and a capacitor, the resistance a track under a knob: the plainest low-pass that moves, and gentle, six decibels an octave.',
  control:
    'How much of the track is in the way. An audio track, joined so that it closes as it is turned up, moves the cut-off about evenly by ear.',
  bias: 'It rests where the source does: put a capacitor before it where that is not at ground.',
  avoid:
    'A source of some kilohms: it stands in line with the track and takes the top of the range away.',
};
