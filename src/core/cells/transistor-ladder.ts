import { THERMAL_VOLTS } from '@/core/constants';
import { sketch } from '@/core/drawing/sketch';
import { nearestPreferred } from '@/core/quantity/series';
import {
  cutOffControl,
  fourPoleLoop,
  resonanceControl,
  TWO_PI,
  type Cell,
  type CellValues,
} from './cell';
import {
  FOOT,
  joined,
  ladderParts,
  liftOf,
  loopOf,
  OUTPUT,
  padOf,
  RUNGS,
  rungY,
  TOP,
} from './ladder-frame';

/** Tail current at the top of the range: more would warm small transistors out of step. */
const TOP_AMPS = 400e-6;

/** A pair of transistors whose emitters a capacitor joins; the bases hang on the chain. */
const rung = (n: number): string => {
  const y = rungY(n);
  return `npn-transistor QL${n} 12,${y} right / npn-transistor QR${n} 24,${y} left flipped
    ${joined(n)}
    10,${y} 12,${y} / 24,${y} 26,${y} / name b${n} 26,${y} / 8,${y} 10,${y} / name b${n} 10,${y}`;
};

/** A resistor of the chain below each rung's bases, down to ground. */
const chain = (n: number): string => {
  const y = rungY(n);
  return n === 1
    ? `8,${y} 8,${y + 1} / resistor RC1 8,${y + 1} down left / ground 8,${y + 5}`
    : `8,${y} 8,${y + 2} / resistor RC${n} 8,${y + 2} down left / 8,${y + 6} 8,${y + 8}`;
};

const drawing = sketch(
  `${FOOT}
   ${RUNGS.map(rung).join('\n')}
   ${RUNGS.map(chain).join('\n')}
   8,${TOP} 8,${TOP - 1} / resistor RC5 8,${TOP - 1} up left / 8,${TOP - 5} 8,${TOP - 6} 18,${TOP - 6} / supply VP 18,${TOP - 8} / 18,${TOP - 8} 18,${TOP - 6}
   14,${TOP - 2} 14,${TOP - 6} / 18,${TOP - 6} 22,${TOP - 6} 22,${TOP - 2}
   6,${TOP} 8,${TOP} / capacitor CB 2,${TOP} right / 2,${TOP} 1,${TOP} 1,${TOP + 1} / ground 1,${TOP + 1}
   ${OUTPUT}`,
);

/** Small-signal conductance of an emitter at half the tail current, as far up as the currents reach. */
const rungHz = (v: CellValues): number =>
  v('IT', 'dc') / 2 / THERMAL_VOLTS / (2 * TWO_PI * v('C1'));

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
    return {
      parts: {
        RI: { value: 47e3 },
        RA: { value: 470 },
        RB: { value: 470 },
        RQ: { value: 4700 },
        P1: { value: 10e3, more: { turn: 0.5 } },
        RC1: { value: 560 },
        RC2: { value: 560 },
        RC3: { value: 560 },
        RC4: { value: 560 },
        RC5: { value: 3300 },
        ...ladderParts(
          farads,
          amps(ask.lowHz),
          RUNGS.flatMap((n) => [`QL${n}`, `QR${n}`]),
        ),
      },
      controls: [cutOffControl(ask, amps, ['IT'], 'dc'), resonanceControl({ from: 0, to: 1 })],
    };
  },
  textbook(v) {
    const loop = loopOf(v, liftOf(v));
    return { gain: (padOf(v) * liftOf(v)) / (1 + loop), ...fourPoleLoop(rungHz(v), loop) };
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
