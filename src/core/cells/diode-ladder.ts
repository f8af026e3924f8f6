import { THERMAL_VOLTS } from '@/core/constants';
import { sketch } from '@/core/drawing/sketch';
import { diode } from '@/core/parts/kinds/diode';
import { nearestPreferred } from '@/core/quantity/series';
import { polynomialRoots } from '@/core/response/polynomial';
import { cutOffControl, resonanceControl, TWO_PI, type Cell, type CellValues } from './cell';
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

const SILICON = diode.models![0];
const { emissionCoefficient } = SILICON.model as { emissionCoefficient: number };
const PER_DIODE = emissionCoefficient * THERMAL_VOLTS;
const TOP_AMPS = 400e-6;

/** A diode on each side and, below them, the capacitor that joins the sides. */
const rung = (n: number): string => {
  const y = rungY(n);
  return `diode DL${n} 14,${y - 2} down left / diode DR${n} 22,${y - 2} down right
    ${joined(n)}`;
};

const drawing = sketch(
  `${FOOT}
   ${RUNGS.map(rung).join('\n')}
   14,${TOP - 2} 14,${TOP - 4} 22,${TOP - 4} 22,${TOP - 2} / 18,${TOP - 4} 18,${TOP - 6}
   npn-transistor QT 16,${TOP - 8} right / 3,${TOP - 8} 16,${TOP - 8} / 18,${TOP - 10} 18,${TOP - 14} / supply VP 18,${TOP - 15} / 18,${TOP - 15} 18,${TOP - 14}
   10,${TOP - 8} 10,${TOP - 9} / resistor RC1 10,${TOP - 9} up left / 10,${TOP - 13} 10,${TOP - 14} 18,${TOP - 14}
   10,${TOP - 8} 10,${TOP - 7} / resistor RC2 10,${TOP - 7} down left / ground 10,${TOP - 3}
   3,${TOP - 8} 3,${TOP - 7} / capacitor CB 3,${TOP - 7} down left / ground 3,${TOP - 3}
   ${OUTPUT}`,
);

/** Rate of one rung: a diode’s resistance at half the tail current, and the capacitor seen from each side. */
const rungRate = (v: CellValues): number => v('IT', 'dc') / 2 / PER_DIODE / (2 * v('C1'));

const levelGain = (v: CellValues): number => emissionCoefficient * liftOf(v);

/**
 * Four rungs of equal diodes and capacitors that load each other, fed with a current, ended by a diode:
 * D(p) = p^4 + 7 p^3 + 15 p^2 + 10 p + 1 with p = 2 r C s, by its ladder of nodal equations (for the
 * linear ladder e.g. T. Stinchcombe, "Derivation of the transfer function of the diode ladder", 2009;
 * V. Zavalishin, "The Art of VA Filter Design", section 5.10). With k fed back its roots are those of
 * D + k; the imaginary part on the axis vanishes at w^2 = 10/7, the real part then at k = 901/49.
 */
const RUNGS_ALONE = [1, 10, 15, 7, 1];
const SINGS = { at: Math.sqrt(10 / 7), loop: 901 / 49 };

/** Q and frequency of the least damped pair, in rates of a rung. */
function pairOf(loop: number): { at: number; q: number } | null {
  const [one, ...rest] = RUNGS_ALONE;
  const pairs = polynomialRoots([one + loop, ...rest]).filter((r) => r.im > 1e-6);
  if (pairs.length === 0) return null;
  const { re, im } = pairs.reduce((a, b) =>
    b.re / Math.hypot(b.re, b.im) > a.re / Math.hypot(a.re, a.im) ? b : a,
  );
  const at = Math.hypot(re, im);
  return { at, q: re < 0 ? at / (-2 * re) : Infinity };
}

export const diodeLadder: Cell = {
  id: 'diode-ladder',
  name: 'Diode ladder',
  short: 'four rungs of diodes',
  drawing,
  limits: { leastHz: 1, mostHz: 50_000 },
  usual: { lowHz: 40, highHz: 10_000 },
  plan(ask) {
    const rate = (hz: number) => (TWO_PI * hz) / SINGS.at;
    const farads = nearestPreferred(TOP_AMPS / 2 / PER_DIODE / (2 * rate(ask.highHz)), 'E6');
    const amps = (hz: number) => 2 * PER_DIODE * 2 * farads * rate(hz);
    return {
      parts: {
        // Low, so that the bases’ own currents count for little.
        RI: { value: 100e3 },
        RA: { value: 1e3 },
        RB: { value: 1e3 },
        RQ: { value: 2200 },
        P1: { value: 2200, more: { turn: 0.5 } },
        RC1: { value: 10e3 },
        RC2: { value: 12e3 },
        ...Object.fromEntries(
          RUNGS.flatMap((n) => [`DL${n}`, `DR${n}`]).map((d) => [d, { model: SILICON }]),
        ),
        ...ladderParts(farads, amps(ask.lowHz), ['QT']),
      },
      controls: [cutOffControl(ask, amps, ['IT'], 'dc'), resonanceControl({ from: 0, to: 1 })],
    };
  },
  textbook(v) {
    const loop = loopOf(v, levelGain(v));
    const pair = pairOf(loop);
    const singing = (SINGS.at * rungRate(v)) / TWO_PI;
    return {
      f0Hz: singing,
      gain: (padOf(v) * levelGain(v)) / (1 + loop),
      ...(pair ? { q: pair.q } : {}),
      loop,
      singsAt: { loop: SINGS.loop, hz: singing },
    };
  },
  agrees: 0.04,
  reasons: (v) => [
    {
      of: 'DL1 DR1 C1',
      text: 'Each pair of diodes is a resistance that half the current sets, and the capacitor across is seen twice from either side.',
      formula: 'r = \\frac{n V_T}{I/2},\\quad p = 2 r C s',
      numbers: `r = ${((2 * PER_DIODE) / v('IT', 'dc')).toPrecision(3)}\\ \\Omega`,
    },
    {
      of: 'C1 C2 C3 C4',
      text: 'The rungs load each other, so the four poles lie far apart: softer about the corner than four equal ones, and it sings only when the loop gives back eighteen times, not four.',
      formula:
        'D = p^4 + 7 p^3 + 15 p^2 + 10 p + 1,\\quad k = 901/49,\\quad \\omega = \\sqrt{10/7} / (2 r C)',
    },
    ...frameReasons(v, { gain: levelGain(v), singsAt: Number(SINGS.loop.toPrecision(3)) }),
  ],
  about:
    'A pair of transistors turns the input into two currents that differ; they come down through four rungs of diodes whose sides capacitors join. Each rung loads the one before: the four poles lie apart, and its resonance has a voice of its own.',
  control:
    'The current at the foot, shared by both sides. All diodes carry it, so all poles move together.',
  bias: 'A follower holds the top at some five volts whatever the current; each rung stands half a volt lower, and no transistor saturates.',
  avoid:
    'Diodes of different batches in one rung: what they differ by comes through as the control’s own thump. Some fifty millivolts at the bases are the most before it bends.',
};
