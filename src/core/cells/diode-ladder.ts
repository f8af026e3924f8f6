import { THERMAL_VOLTS } from '@/core/constants';
import { sketch } from '@/core/drawing/sketch';
import { diode } from '@/core/parts/kinds/diode';
import { npnTransistor } from '@/core/parts/kinds/transistor';
import { nearestPreferred } from '@/core/quantity/series';
import { polynomialRoots } from '@/core/response/polynomial';
import {
  cutOffControl,
  resonanceControl,
  TWO_PI,
  wiperOf,
  type Cell,
  type CellValues,
} from './cell';

const SILICON = diode.models![0];
const { emissionCoefficient } = SILICON.model as { emissionCoefficient: number };
const PER_DIODE = emissionCoefficient * THERMAL_VOLTS;
const TOP_AMPS = 400e-6;
const RUNGS = [1, 2, 3, 4];
const PITCH = 8;
const LOWEST = 44;
const rungY = (n: number): number => LOWEST - n * PITCH;

/** A diode on each side and, below them, the capacitor that joins the sides. */
const rung = (n: number): string => {
  const y = rungY(n);
  return `diode DL${n} 14,${y - 2} down left / diode DR${n} 22,${y - 2} down right
    14,${y + 2} 14,${y + 6} / 22,${y + 2} 22,${y + 6} / 14,${y + 4} 16,${y + 4} / capacitor C${n} 16,${y + 4} right / 20,${y + 4} 22,${y + 4}`;
};

const y0 = LOWEST;
const top = rungY(4);
const last = top + 4;

const drawing = sketch(
  `in 0,${y0} / 0,${y0} 2,${y0} / resistor RI 2,${y0} right / 6,${y0} 12,${y0} / 8,${y0} 8,${y0 + 1} / resistor RA 8,${y0 + 1} down left / ground 8,${y0 + 5}
   npn-transistor QA 12,${y0} right / npn-transistor QB 24,${y0} left flipped
   14,${y0 + 2} 14,${y0 + 4} 22,${y0 + 4} 22,${y0 + 2} / 18,${y0 + 4} 18,${y0 + 5} / current-source IT 18,${y0 + 5} down right / supply VN 18,${y0 + 10} down / 18,${y0 + 9} 18,${y0 + 10}
   ${RUNGS.map(rung).join('\n')}
   14,${top - 2} 14,${top - 4} 22,${top - 4} 22,${top - 2} / 18,${top - 4} 18,${top - 6}
   npn-transistor QT 16,${top - 8} right / 3,${top - 8} 16,${top - 8} / 18,${top - 10} 18,${top - 14} / supply VP 18,${top - 15} / 18,${top - 15} 18,${top - 14}
   10,${top - 8} 10,${top - 9} / resistor RC1 10,${top - 9} up left / 10,${top - 13} 10,${top - 14} 18,${top - 14}
   10,${top - 8} 10,${top - 7} / resistor RC2 10,${top - 7} down left / ground 10,${top - 3}
   3,${top - 8} 3,${top - 7} / capacitor CB 3,${top - 7} down left / ground 3,${top - 3}
   name l4 15,${last} / name r4 21,${last}
   name l4 32,20 / 32,20 34,20 / op-amp A1 34,20 plus / 38,21 41,21 / 34,22 33,22 33,26 34,26 / resistor R1 34,26 right / 38,26 39,26 39,21
   33,26 33,27 / resistor R2 33,27 down left / ground 33,31
   41,21 42,21 / resistor R3 42,21 right / 46,21 48,21 48,18
   name r4 46,16 / 46,16 50,16 / op-amp A2 50,16 plus / 50,18 48,18 48,22 50,22 / resistor R4 50,22 right / 54,22 56,22 56,17 / 54,17 58,17 / out 58,17
   56,22 56,36 / potentiometer P1 48,36 right flipped / 52,36 56,36 / 48,36 46,36 46,37 / ground 46,37
   50,34 50,32 44,32 44,${y0} 42,${y0} / resistor RQ 38,${y0} right / 24,${y0} 38,${y0} / 30,${y0} 30,${y0 + 1} / resistor RB 30,${y0 + 1} down right / ground 30,${y0 + 5}`,
);

/** Rate of one rung: a diode’s resistance at half the tail current, and the capacitor seen from each side. */
const rungRate = (v: CellValues): number => v('IT', 'dc') / 2 / PER_DIODE / (2 * v('C1'));

const levelGain = (v: CellValues): number => emissionCoefficient * (1 + v('R4') / v('R3'));

function loopOf(v: CellValues): number {
  const { turn, ohms } = wiperOf(v);
  return (turn * levelGain(v) * v('RB')) / (v('RQ') + ohms + v('RB'));
}

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
    const [large, small] = [100e3, 2e3];
    return {
      parts: {
        // Low, so that the bases’ own currents count for little.
        RI: { value: 100e3 },
        RA: { value: 1e3 },
        RB: { value: 1e3 },
        RQ: { value: 2200 },
        P1: { value: 2200, more: { turn: 0.5 } },
        IT: { value: amps(ask.lowHz) },
        VN: { value: -12 },
        VP: { value: 12 },
        RC1: { value: 10e3 },
        RC2: { value: 12e3 },
        CB: { value: 10e-6 },
        R1: { value: small },
        R2: { value: large },
        R3: { value: small },
        R4: { value: large },
        ...Object.fromEntries(RUNGS.map((n) => [`C${n}`, { value: farads }])),
        ...Object.fromEntries(
          RUNGS.flatMap((n) => [`DL${n}`, `DR${n}`]).map((d) => [d, { model: SILICON }]),
        ),
        ...Object.fromEntries(
          ['QA', 'QB', 'QT'].map((q) => [q, { model: npnTransistor.models![1] }]),
        ),
      },
      controls: [cutOffControl(ask, amps, ['IT'], 'dc'), resonanceControl({ from: 0, to: 1 })],
    };
  },
  textbook(v) {
    const loop = loopOf(v);
    const pair = pairOf(loop);
    const pad = v('RA') / (v('RA') + v('RI'));
    const singing = (SINGS.at * rungRate(v)) / TWO_PI;
    return {
      f0Hz: singing,
      gain: (pad * levelGain(v)) / (1 + loop),
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
      text: 'The rungs load each other, so the four poles lie far apart: softer about the corner than four equal ones.',
      formula: 'D = p^4 + 7 p^3 + 15 p^2 + 10 p + 1',
    },
    {
      of: 'RQ P1 RB',
      text: 'It sings when the loop gives back eighteen times, not four: the bottom falls far as resonance rises.',
      formula: 'k = 901/49 = 18.4,\\quad \\omega = \\sqrt{10/7} / (2 r C)',
      numbers: `k = ${loopOf(v).toPrecision(3)}`,
    },
  ],
  about:
    'A pair of transistors turns the input into two currents that differ; they come down through four rungs of diodes whose sides capacitors join. Each rung loads the one before: the four poles lie apart, and its resonance has a voice of its own.',
  control:
    'The current at the foot, shared by both sides. All diodes carry it, so all poles move together.',
  bias: 'A follower holds the top at some five volts whatever the current; each rung stands half a volt lower, and no transistor saturates.',
  avoid:
    'Diodes of different batches in one rung: what they differ by comes through as the control’s own thump. Some fifty millivolts at the bases are the most before it bends.',
};
