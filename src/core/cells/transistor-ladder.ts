import { THERMAL_VOLTS } from '@/core/constants';
import { sketch } from '@/core/drawing/sketch';
import { nearestPreferred } from '@/core/quantity/series';
import {
  cutOffControl,
  fourPoleLoop,
  resonanceControl,
  TWO_PI,
  texNumber,
  type Cell,
  type CellReason,
  type CellValues,
} from './cell';
import {
  FOOT,
  frameReasons,
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

/**
 * Cut-off of one rung: the emitters of both sides, VT / (I/2) each, see twice the capacitor between them.
 * Four alike in a row load nothing, since currents go up through them: H = 1/(1 + s/w0)^4, with
 * feedback k it is H/(1 + k H) and sings at k = 4 (US patent 3,475,623, 1969; for the linear loop
 * T. Stilson, J. O. Smith, Proc. ICMC, 1996).
 */
const rungHz = (v: CellValues): number =>
  v('IT', 'dc') / 2 / THERMAL_VOLTS / (2 * TWO_PI * v('C1'));

/** Volts at the bases of each rung, as the chain divides the supply while the bases take nothing. */
function chainReason(v: CellValues): CellReason {
  const ohms = [1, 2, 3, 4, 5].map((n) => v(`RC${n}`));
  const total = ohms.reduce((sum, r) => sum + r, 0);
  const bases = RUNGS.map((n) => {
    const below = ohms.slice(0, n).reduce((sum, r) => sum + r, 0);
    return ((v('VP') * below) / total).toPrecision(3);
  });
  return {
    of: 'RC1 RC2 RC3 RC4 RC5',
    text: `The bases stand at ${bases.join(', ')} V, lowest first: each rung has what lies between for its collectors, and 0.6 V less stands at its emitters.`,
    rule: 'Rule of thumb: the chain carries ten times what all bases take.',
  };
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
  reasons: (v) => [
    {
      of: 'QL1 QR1 C1',
      text: 'Looked into from below, each emitter is a resistance that half the current sets; the capacitor between the two sides is seen twice from either. The current goes on up whatever the rung above does, so the four poles stay equal.',
      formula: 'f_0 = \\frac{I / 2 V_T}{2\\pi \\cdot 2 C}',
      numbers: `\\frac{${texNumber(v('IT', 'dc'))} / (2 \\cdot ${texNumber(THERMAL_VOLTS)})}{2\\pi \\cdot 2 \\cdot ${texNumber(v('C1'))}} = ${rungHz(v).toPrecision(4)}\\ Hz`,
    },
    ...frameReasons(v, { gain: liftOf(v), singsAt: 4 }),
    chainReason(v),
  ],
  about:
    'A pair of transistors turns the input into two currents that differ. On their way up they pass four pairs whose emitters a capacitor joins: each pair is a resistance that the current sets, and with its capacitor one pole.',
  control:
    'The current at the foot. All rungs carry it, so all poles move together; a transistor as its source makes it double every 18 mV at its base, which a converter brings to a volt an octave.',
  bias: 'A chain of resistors holds the bases of each rung a volt above those below, so that no transistor saturates. The outputs stand four volts up; the difference takes that away.',
  avoid:
    'Some fifty millivolts at the bases are the most before it bends. Each rung loses the base currents of its transistors: take those of high gain, alike in pairs.',
};
