import { THERMAL_VOLTS } from '@/core/constants';
import { sketch } from '@/core/drawing/sketch';
import { npnTransistor } from '@/core/parts/kinds/transistor';
import { nearestPreferred } from '@/core/quantity/series';
import {
  cutOffControl,
  fourPoleLoop,
  resonanceControl,
  TWO_PI,
  wiperOf,
  type Cell,
  type CellValues,
} from './cell';

/** Tail current at the top of the range: more would warm small transistors out of step. */
const TOP_AMPS = 400e-6;
const RUNGS = [1, 2, 3, 4];
/** Height of a rung in the drawing, and of the lowest. */
const PITCH = 8;
const LOWEST = 44;
const rungY = (n: number): number => LOWEST - n * PITCH;

/** A pair of transistors whose emitters a capacitor joins; the bases hang on the chain. */
const rung = (n: number): string => {
  const y = rungY(n);
  return `npn-transistor QL${n} 12,${y} right / npn-transistor QR${n} 24,${y} left flipped
    14,${y + 2} 14,${y + 6} / 22,${y + 2} 22,${y + 6} / 14,${y + 4} 16,${y + 4} / capacitor C${n} 16,${y + 4} right / 20,${y + 4} 22,${y + 4}
    10,${y} 12,${y} / 24,${y} 26,${y} / name b${n} 26,${y} / 8,${y} 10,${y} / name b${n} 10,${y}`;
};

/** A resistor of the chain below each rung's bases, down to ground. */
const chain = (n: number): string => {
  const y = rungY(n);
  return n === 1
    ? `8,${y} 8,${y + 1} / resistor RC1 8,${y + 1} down left / ground 8,${y + 5}`
    : `8,${y} 8,${y + 2} / resistor RC${n} 8,${y + 2} down left / 8,${y + 6} 8,${y + 8}`;
};

const top = rungY(4);
const last = top + 4;
const y0 = LOWEST;

const drawing = sketch(
  `in 0,${y0} / 0,${y0} 2,${y0} / resistor RI 2,${y0} right / 6,${y0} 12,${y0} / 8,${y0} 8,${y0 + 1} / resistor RA 8,${y0 + 1} down left / ground 8,${y0 + 5}
   npn-transistor QA 12,${y0} right / npn-transistor QB 24,${y0} left flipped
   14,${y0 + 2} 14,${y0 + 4} 22,${y0 + 4} 22,${y0 + 2} / 18,${y0 + 4} 18,${y0 + 5} / current-source IT 18,${y0 + 5} down right / supply VN 18,${y0 + 10} down / 18,${y0 + 9} 18,${y0 + 10}
   ${RUNGS.map(rung).join('\n')}
   ${RUNGS.map(chain).join('\n')}
   8,${top} 8,${top - 1} / resistor RC5 8,${top - 1} up left / 8,${top - 5} 8,${top - 6} 18,${top - 6} / supply VP 18,${top - 8} / 18,${top - 8} 18,${top - 6}
   14,${top - 2} 14,${top - 6} / 18,${top - 6} 22,${top - 6} 22,${top - 2}
   6,${top} 8,${top} / capacitor CB 2,${top} right / 2,${top} 1,${top} 1,${top + 1} / ground 1,${top + 1}
   name l4 15,${last} / name r4 21,${last}
   name l4 32,20 / 32,20 34,20 / op-amp A1 34,20 plus / 38,21 41,21 / 34,22 33,22 33,26 34,26 / resistor R1 34,26 right / 38,26 39,26 39,21
   33,26 33,27 / resistor R2 33,27 down left / ground 33,31
   41,21 42,21 / resistor R3 42,21 right / 46,21 48,21 48,18
   name r4 46,16 / 46,16 50,16 / op-amp A2 50,16 plus / 50,18 48,18 48,22 50,22 / resistor R4 50,22 right / 54,22 56,22 56,17 / 54,17 58,17 / out 58,17
   56,22 56,36 / potentiometer P1 48,36 right flipped / 52,36 56,36 / 48,36 46,36 46,37 / ground 46,37
   50,34 50,32 44,32 44,${y0} 42,${y0} / resistor RQ 38,${y0} right / 24,${y0} 38,${y0} / 30,${y0} 30,${y0 + 1} / resistor RB 30,${y0 + 1} down right / ground 30,${y0 + 5}`,
);

/** Small-signal conductance of an emitter at half the tail current, as far up as the currents reach. */
const rungHz = (v: CellValues): number =>
  v('IT', 'dc') / 2 / THERMAL_VOLTS / (2 * TWO_PI * v('C1'));

const levelGain = (v: CellValues): number => 1 + v('R4') / v('R3');

function loopOf(v: CellValues): number {
  const { turn, ohms } = wiperOf(v);
  return (turn * levelGain(v) * v('RB')) / (v('RQ') + ohms + v('RB'));
}

export const transistorLadder: Cell = {
  id: 'transistor-ladder',
  name: 'Transistor ladder',
  short: 'four rungs of transistors',
  drawing,
  limits: { leastHz: 1, mostHz: 50_000 },
  usual: { lowHz: 30, highHz: 12_000 },
  plan(ask) {
    const farads = nearestPreferred(TOP_AMPS / 2 / THERMAL_VOLTS / (2 * TWO_PI * ask.highHz), 'E6');
    const amps = (hz: number) => 2 * THERMAL_VOLTS * 2 * TWO_PI * hz * farads;
    // What feeds the difference is the same on both sides, or the ladder's common volts come through.
    const [large, small] = [100e3, 2e3];
    return {
      parts: {
        RI: { value: 47e3 },
        RA: { value: 470 },
        RB: { value: 470 },
        RQ: { value: 4700 },
        P1: { value: 10e3, more: { turn: 0.5 } },
        IT: { value: amps(ask.lowHz) },
        VN: { value: -12 },
        VP: { value: 12 },
        RC1: { value: 560 },
        RC2: { value: 560 },
        RC3: { value: 560 },
        RC4: { value: 560 },
        RC5: { value: 3300 },
        CB: { value: 10e-6 },
        R1: { value: small },
        R2: { value: large },
        R3: { value: small },
        R4: { value: large },
        ...Object.fromEntries(RUNGS.map((n) => [`C${n}`, { value: farads }])),
        ...Object.fromEntries(
          ['QA', 'QB', ...RUNGS.flatMap((n) => [`QL${n}`, `QR${n}`])].map((q) => [
            q,
            { model: npnTransistor.models![1] },
          ]),
        ),
      },
      controls: [cutOffControl(ask, amps, ['IT'], 'dc'), resonanceControl({ from: 0, to: 1 })],
    };
  },
  textbook(v) {
    const loop = loopOf(v);
    const pad = v('RA') / (v('RA') + v('RI'));
    return { gain: (pad * levelGain(v)) / (1 + loop), ...fourPoleLoop(rungHz(v), loop) };
  },
  agrees: 0.03,
  reasons: () => [],
  about:
    'A pair of transistors turns the input into two currents that differ. On their way up they pass four pairs whose emitters a capacitor joins: each pair is a resistance that the current sets, and with its capacitor one pole.',
  control:
    'The current at the foot. All rungs carry it, so all poles move together; a transistor as its source makes it double every 18 mV at its base, which a converter brings to a volt an octave.',
  bias: 'A chain of resistors holds the bases of each rung a volt above those below, so that no transistor saturates. The outputs stand four volts up; the difference takes that away.',
  avoid:
    'Some fifty millivolts at the bases are the most before it bends. Each rung loses the base currents of its transistors: take those of high gain, alike in pairs.',
};
