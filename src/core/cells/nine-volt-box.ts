import { THERMAL_VOLTS } from '@/core/constants';
import { sketch } from '@/core/drawing/sketch';
import { lastWhere } from '@/core/numeric/root';
import { diode, lightEmittingDiode } from '@/core/parts/kinds/diode';
import type { NamedModel, PartKind } from '@/core/parts/part-kind';
import { nearestPreferred } from '@/core/quantity/series';
import { resonanceControl, TWO_PI, type Cell, type CellValues } from './cell';

/** The pair in the place of the resistors. */
interface Pair {
  id: string;
  name: string;
  short: string;
  kind: PartKind;
  /** Current at the top of the range: what half a battery drives through feed, pair and leak. */
  topAmps: number;
  /** Their own charge moves the top of the range. */
  agrees: number;
}

const PAD = [10e3, 1e3] as const;
const FEED = 47e3;
const LEAK = 68e3;

/** The law of one of the pair. */
class Junction {
  readonly model: NamedModel;
  /** n VT. */
  readonly volts: number;
  private readonly saturationAmps: number;

  constructor({ kind }: Pair) {
    this.model = kind.models![0];
    const figures = this.model.model as { saturationAmps: number; emissionCoefficient: number };
    this.volts = figures.emissionCoefficient * THERMAL_VOLTS;
    this.saturationAmps = figures.saturationAmps;
  }

  drop(amps: number): number {
    return this.volts * Math.log(amps / this.saturationAmps + 1);
  }
}

/** Current that a control voltage drives through both diodes, by halving: it rises all the way. */
function ampsOf(v: CellValues, pair: Junction): number {
  const volts = v('VC');
  const ohms = v('RV') + v('RB');
  const drops = (amps: number) => amps * ohms + 2 * pair.drop(amps);
  return lastWhere((amps) => drops(amps) < volts, 0, Math.max(volts, 0) / ohms);
}

const gainOf = (v: CellValues): number => 1 + (v('P1', 'turn') * v('P1')) / v('RG');

/**
 * The positive-feedback low-pass with a diode in the place of each resistor: r = n VT / I, before the
 * first also what the pad shows, R1 = r + Rp. With the leak RB behind them, a = r / RB:
 *
 *   in/out K = 1 + a (1 + R1/r) + s (r C2 + R1 C2 + R1 C1 (1 + a - K)) + s^2 R1 r C1 C2
 *
 * Nodal equations of R. P. Sallen and E. L. Key (1955) with those resistors put in.
 */
function figuresFor(v: CellValues, ohms: number) {
  const [C1, C2] = [v('C1'), v('C2')];
  const first = ohms + (v('RI') * v('RA')) / (v('RI') + v('RA'));
  const a = ohms / v('RB');
  const rest = 1 + a * (1 + first / ohms);
  const square = first * ohms * C1 * C2;
  const K = gainOf(v);
  const width = ohms * C2 + first * C2 + first * C1 * (1 + a - K);
  return {
    f0Hz: Math.sqrt(rest / square) / TWO_PI,
    gain: ((v('RA') / (v('RA') + v('RI'))) * K) / rest,
    q: width > 0 ? Math.sqrt(rest * square) / width : Infinity,
    loop: K,
    singing: 1 + a + (C2 / C1) * (1 + ohms / first),
  };
}

/** Current for a place, by halving: it rises with the current. */
function ampsFor(v: CellValues, pair: Junction, hz: number): number {
  const hzAt = (u: number) => figuresFor(v, pair.volts / Math.exp(u)).f0Hz;
  return Math.exp(lastWhere((u) => hzAt(u) < hz, Math.log(1e-12), Math.log(1e-2)));
}

function boxOf(made: Pair): Cell {
  const pair = new Junction(made);
  const { id, name, short, kind, topAmps } = made;
  const word = kind.noun.replaceAll(' ', '-');
  return {
    id,
    name,
    short,
    drawing:
      sketch(`in 0,8 / 0,8 1,8 / resistor RI 1,8 right / 5,8 8,8 / 6,8 6,9 / resistor RA 6,9 down left / ground 6,13
    capacitor CI 8,8 right / 12,8 14,8 / 13,8 13,7 / resistor RV 13,7 up right / 13,3 13,2 / supply VC 13,2
    ${word} D1 14,8 right / 18,8 22,8 / 20,8 20,7 / capacitor C1 20,7 up right / 20,3 20,1 43,1 43,9
    ${word} D2 22,8 right / 26,8 36,8 / 29,8 29,9 / capacitor C2 29,9 down left / ground 29,13 / 32,8 32,9 / resistor RB 32,9 down right / ground 32,13
    op-amp A1 36,8 plus / 40,9 47,9 / out 47,9 / 36,10 35,10 35,16 36,16 / potentiometer P1 36,16 right / 40,16 44,16 44,9 / 38,18 42,18 42,16
    35,16 35,17 / resistor RG 35,17 down left / 35,21 35,22 / capacitor CG 35,22 down left / ground 35,26`),
    limits: { leastHz: 20, mostHz: 20_000 },
    usual: { lowHz: 250, highHz: 6000 },
    ownLaw: true,
    plan(ask) {
      const farads = nearestPreferred(topAmps / (TWO_PI * ask.highHz * pair.volts), 'E6');
      const planned = (part: string) =>
        ({ RI: PAD[0], RA: PAD[1], RB: LEAK, C1: farads, C2: farads, P1: 0, RG: 1 })[part] ?? 0;
      const [low, high] = [ask.lowHz, ask.highHz].map((hz) => {
        const amps = ampsFor(planned, pair, hz);
        return amps * (FEED + LEAK) + 2 * pair.drop(amps);
      });
      return {
        parts: {
          RI: { value: PAD[0] },
          RA: { value: PAD[1] },
          CI: { value: 10e-6 },
          RV: { value: FEED },
          VC: { value: low },
          D1: { model: pair.model },
          D2: { model: pair.model },
          C1: { value: farads },
          C2: { value: farads },
          RB: { value: LEAK },
          RG: { value: 10e3 },
          CG: { value: 10e-6 },
          P1: { value: 47e3, more: { turn: 0.3 } },
        },
        controls: [
          {
            for: 'cut-off',
            name: 'Cut-off',
            is: 'volts',
            span: { from: low, to: high },
            at: 0.6,
            moves: [{ part: 'VC', quantity: 'volts', from: low, to: high, law: 'even' }],
          },
          resonanceControl({ from: 0, to: 0.7 }),
        ],
      };
    },
    textbook(v) {
      const { singing, ...figures } = figuresFor(v, pair.volts / ampsOf(v, pair));
      return { ...figures, singsAt: { loop: singing, hz: figures.f0Hz } };
    },
    agrees: made.agrees,
    reasons: (v) => [
      {
        of: 'D1 D2',
        text: 'Resistances for a small signal that the current through them sets.',
        formula: 'r = \\frac{n V_T}{I}',
        numbers: `\\frac{${(pair.volts * 1000).toPrecision(3)}\\ mV}{${(ampsOf(v, pair) * 1e6).toPrecision(3)}\\ \\mu A}`,
        rule: 'Rule of thumb: 25 mV over the current, twice that for light-emitting diodes.',
      },
      {
        of: 'RB',
        text: 'Where the current goes on to: it loads the filter, most where the diodes are hardly open.',
        formula: 'H_0 = \\frac{K}{1 + 2 r / R_B}',
      },
      {
        of: 'RG P1',
        text: 'The gain takes damping away; at three and a little it sings.',
        formula: 'Q = \\frac{\\sqrt{1 + 2a}}{3 + a - K}',
      },
    ],
    about:
      'A second-order low-pass about one op-amp whose two resistors are diodes: a current through both sets how much they resist. One knob drives the current, the other the gain, up to singing; all of it on one small battery.',
    control:
      'A voltage through a resistor and both diodes: at its lower end the current rises as an exponential, further up in proportion.',
    bias: 'The current goes through both diodes and down RB; the amplifier passes that rest on as it is, because CG blocks its gain for direct current.',
    avoid:
      'More than some tens of millivolts at the diodes: the signal then opens them itself, and the cut-off moves with it. Light-emitting diodes bear a little more and need two volts more to open.',
  };
}

export const nineVoltBox = boxOf({
  id: 'nine-volt-box',
  name: 'Nine-volt box',
  short: 'two diodes about one op-amp',
  kind: diode,
  topAmps: 20e-6,
  agrees: 0.06,
});

export const nineVoltLights = boxOf({
  id: 'nine-volt-lights',
  name: 'Nine-volt box with lights',
  short: 'two light-emitting diodes about one op-amp',
  kind: lightEmittingDiode,
  topAmps: 12e-6,
  agrees: 0.1,
});
