import { THERMAL_VOLTS } from '@/core/constants';
import { sketch } from '@/core/drawing/sketch';
import { lastWhere } from '@/core/numeric/root';
import { npnTransistor } from '@/core/parts/kinds/transistor';
import { nearestPreferred } from '@/core/quantity/series';
import { TWO_PI, type Cell, type CellReason, type CellValues } from './cell';

const SILICON = npnTransistor.models![1];
const { saturationAmps, betaForward } = SILICON.model as {
  saturationAmps: number;
  betaForward: number;
};
const COIL = 0.5;

const beside = (...ohms: number[]): number => 1 / ohms.reduce((sum, r) => sum + 1 / r, 0);
const baseVolts = (amps: number): number => THERMAL_VOLTS * Math.log(amps / saturationAmps + 1);

/** Collector current of the first transistor, which RF feeds from its own collector. */
function collectorAmps(v: CellValues): number {
  const left = (amps: number) => {
    const base = baseVolts(amps) + amps * v('RE');
    const fed = base / v('RB') + amps / betaForward;
    return v('VS') - (amps + fed) * v('RC') - fed * v('RF') - base;
  };
  return lastWhere((amps) => left(amps) > 0, 0, v('VS') / v('RC'));
}

/** Between the first base and ground, seen from the emitter. */
const emitterOhms = (v: CellValues): number => THERMAL_VOLTS / collectorAmps(v) + v('RE');

/** What the first transistor makes of its base: at its collector and, for a turn of the pot, at the wiper. */
function madeOf(v: CellValues, turn = v('P1', 'turn')): { collector: number; wiper: number } {
  const follower = beside(v('RB3'), v('RB4'), betaForward * v('RE2'));
  const lower = beside(turn * v('P1'), follower);
  const track = (1 - turn) * v('P1') + lower;
  const collector = beside(v('RC'), v('RF'), track) / emitterOhms(v);
  return { collector, wiper: (collector * lower) / track };
}

const gainAt = (v: CellValues, turn: number): number => madeOf(v, turn).wiper;

/** Beside the coil: its damping resistor, the source, and the base. */
function besideCoil(v: CellValues): number {
  const base = betaForward * emitterOhms(v);
  return beside(v('RQ'), v('RI'), base);
}

/**
 * The capacitor’s other end is driven to -A x of the coil’s voltage, so the coil sees it 1 + A x times
 * as large (J. M. Miller, "Dependence of the input impedance ...", Scientific Papers of the Bureau of
 * Standards 351, 1920):  w0^2 = 1 / (L C (1 + A x)).
 */
function figuresOf(v: CellValues) {
  const across = gainAt(v, v('P1', 'turn'));
  const seen = v('C1') * (1 + across);
  const w0 = 1 / Math.sqrt(v('L1') * seen);
  const reactance = w0 * v('L1');
  // The coil’s own resistance as one beside it.
  const damped = beside(besideCoil(v), reactance ** 2 / v('RL'));
  return {
    f0Hz: w0 / TWO_PI,
    q: damped / reactance,
    gain: (-madeOf(v).collector * damped) / v('RI'),
    across,
    seen,
  };
}

export const treadle: Cell = {
  id: 'treadle',
  name: 'Treadle filter',
  short: 'a coil and two transistors',
  drawing:
    sketch(`in 0,14 / 0,14 1,14 / capacitor CI 1,14 right / 5,14 6,14 / resistor RI 6,14 right / 10,14 27,14
    12,14 12,15 / coil L1 12,15 down right / resistor RL 12,19 down right / 12,23 12,25 / capacitor CB 12,25 down right / ground 12,29
    19,14 19,15 / resistor RQ 19,15 down right / 19,19 19,24 12,24 / 12,24 7,24 7,25 / resistor RB 7,25 down left / ground 7,29
    npn-transistor Q1 27,14 right / 29,16 29,17 / resistor RE 29,17 down right / ground 29,21
    29,12 29,8 / resistor RC 29,8 up right / 29,4 29,2 57,2 / supply VS 43,1 / 43,1 43,2
    29,10 26,10 / resistor RF 26,10 left / 22,10 11,10 11,24
    29,10 33,10 / capacitor CC 33,10 right / 37,10 45,10 45,19 43,19 / potentiometer P1 39,19 right flipped / 39,19 37,19 37,20 / ground 37,20
    41,17 41,14 47,14 / capacitor CW 47,14 right / 51,14 55,14 / 53,14 53,13 / resistor RB3 53,13 up left / 53,9 53,2 / 53,14 53,15 / resistor RB4 53,15 down left / ground 53,19
    npn-transistor Q2 55,14 right / 57,12 57,2 / 57,16 57,17 / resistor RE2 57,17 down right / ground 57,21
    57,16 65,16 65,32 47,32 / capacitor C1 47,32 left / 43,32 25,32 25,14
    39,10 39,6 67,6 / out 67,6`),
  limits: { leastHz: 50, mostHz: 10_000 },
  usual: { lowHz: 400, highHz: 2200 },
  ownLaw: true,
  passes: 'peak',
  plan(ask) {
    const farads = nearestPreferred(1 / ((TWO_PI * ask.highHz) ** 2 * COIL), 'E6');
    const needed = (ask.highHz / ask.lowHz) ** 2 - 1;
    const parts = {
      VS: 9,
      CI: 100e-9,
      RI: 68e3,
      L1: COIL,
      RL: 60,
      RQ: 33e3,
      CB: 10e-6,
      RB: 100e3,
      RF: 470e3,
      RC: 22e3,
      CC: 1e-6,
      P1: 100e3,
      CW: 1e-6,
      RB3: 1e6,
      RB4: 1e6,
      RE2: 10e3,
      C1: farads,
      RE: 390,
    };
    // The emitter’s resistor sets how much the first transistor makes of it.
    const known = (RE: number) => (part: string) => ({ ...parts, RE })[part] ?? NaN;
    const most = lastWhere(
      (u) => gainAt(known(Math.exp(u)), 1) > needed,
      Math.log(10),
      Math.log(20e3),
    );
    const RE = nearestPreferred(Math.exp(most), 'E12');
    return {
      parts: {
        ...Object.fromEntries(
          Object.entries({ ...parts, RE }).map(([id, value]) => [id, { value }]),
        ),
        P1: { value: parts.P1, more: { turn: 0.5 } },
        Q1: { model: SILICON },
        Q2: { model: SILICON },
      },
      controls: [
        {
          for: 'cut-off',
          name: 'Treadle',
          is: 'turn',
          at: 0.6,
          // Heel down the capacitor is seen largest.
          moves: [{ part: 'P1', quantity: 'turn', from: 1, to: 0, law: 'even' }],
        },
      ],
    };
  },
  textbook(v) {
    const { f0Hz, q, gain } = figuresOf(v);
    return { f0Hz, q, gain };
  },
  agrees: 0.08,
  reasons: reasonsOf,
  about:
    'A coil at the first transistor’s base, and a capacitor that the second drives from what the pot lets through of the first’s output: a resonant peak that the treadle moves.',
  control:
    'The pot divides what the first transistor has made of the coil’s voltage, upside down. The more of it drives the capacitor, the larger that seems to the coil, and the lower the peak.',
  bias: 'RF feeds the first base from its own collector, through the coil: more current pulls the collector down and so less is fed. Two equal resistors hold the second base near half the supply.',
  avoid:
    'A source of some ten kilohms or a cable’s capacitance straight before it: the coil’s damping and the peak move with it. More than some tens of millivolts at the base bends.',
};

function reasonsOf(v: CellValues): CellReason[] {
  const amps = collectorAmps(v);
  const { across, seen, f0Hz } = figuresOf(v);
  const volts = (x: number) => `${x.toPrecision(3)} V`;
  const collector = v('VS') - amps * v('RC');
  return [
    {
      of: 'C1 P1',
      text: 'The coil sees the capacitor one and A x times as large, because its other end goes the other way: the pot moves the peak by moving x.',
      formula: 'C_{seen} = C_1 (1 + A x),\\quad f_0 = \\frac{1}{2\\pi\\sqrt{L_1 C_{seen}}}',
      numbers: `${(v('C1') * 1e9).toPrecision(3)}\\ nF \\cdot (1 + ${across.toPrecision(3)}) = ${(seen * 1e9).toPrecision(3)}\\ nF,\\quad f_0 = ${f0Hz.toPrecision(4)}\\ Hz`,
    },
    {
      of: 'Q1',
      text: `Rests at ${(amps * 1e6).toPrecision(3)} µA: its emitter at ${volts(amps * v('RE'))}, its base at ${volts(baseVolts(amps) + amps * v('RE'))}, its collector at ${volts(collector)}.`,
      formula: 'V_B = V_{BE} + I R_E,\\quad V_C = V_B + R_F (V_B / R_B + I / \\beta)',
      rule: 'Rule of thumb: 0.6 V from base to emitter, no base current.',
    },
    {
      of: 'RC RE',
      text: 'How much the first transistor makes of its base.',
      formula: 'A = \\frac{R_C \\parallel P_1}{R_E + V_T / I}',
      numbers: `A = ${gainAt(v, 1).toPrecision(3)}`,
      rule: 'Rule of thumb: the collector’s resistor over the emitter’s.',
    },
    {
      of: 'Q2 RE2',
      text: 'A follower: it drives the capacitor without loading the pot.',
    },
    {
      of: 'RQ RL',
      text: 'What damps the coil: the resistor across it, the source through RI, the base, and the wire of the coil itself.',
      formula: 'Q = \\frac{R_Q \\parallel R_I \\parallel \\beta (R_E + V_T/I)}{2\\pi f_0 L_1}',
    },
  ];
}
