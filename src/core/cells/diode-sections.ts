import { THERMAL_VOLTS } from '@/core/constants';
import { sketch } from '@/core/drawing/sketch';
import { lastWhere } from '@/core/numeric/root';
import { diode } from '@/core/parts/kinds/diode';
import { nearestPreferred } from '@/core/quantity/series';
import { TWO_PI, type Cell, type CellPart, type CellValues } from './cell';

const SILICON = diode.models![0];
const { saturationAmps, emissionCoefficient } = SILICON.model as {
  saturationAmps: number;
  emissionCoefficient: number;
};
const PER_DIODE = emissionCoefficient * THERMAL_VOLTS;
/** Current of each diode at the top of the range. */
const TOP_AMPS = 200e-6;
const FEED = 47e3;
const LEAK = 1e6;
const PAD = [10e3, 100] as const;

const diodeVolts = (amps: number): number => PER_DIODE * Math.log(amps / saturationAmps + 1);

/** What feeds one diode. */
const ampsOf = (v: CellValues): number =>
  lastWhere(
    (amps) => amps * v('RV1') + diodeVolts(amps) < v('VC'),
    0,
    Math.max(v('VC'), 0) / v('RV1'),
  );

const beside = (...ohms: number[]): number => 1 / ohms.reduce((sum, r) => sum + 1 / r, 0);

/** What a shunt leg shows a small signal at a current: r = n VT / I, beside what feeds it. */
const legOhms = (v: CellValues, amps: number, leg: number, last: boolean): number =>
  beside(PER_DIODE / amps, v(`RV${leg}`), ...(last ? [v('RO')] : []));

/**
 * Sections of a capacitor and a shunt resistance behind a source of r0, by the nodal equations. Two of
 * them load each other:
 *
 *   D = 1 + s [(r0 + Z1) C1 + Z1 C2 + Z2 C2] + s^2 [(r0 + Z1) C1 Z2 C2 + r0 C1 Z1 C2]
 */
function figuresAt(v: CellValues, amps: number, sections: 1 | 2) {
  const pad = v('RA') / (v('RA') + v('RI'));
  const r0 = beside(v('RA'), v('RI'));
  const made = pad * (1 + v('R1') / v('R2'));
  const Z1 = legOhms(v, amps, 1, sections === 1);
  const C1 = v('C1');
  if (sections === 1) return { f0Hz: 1 / (TWO_PI * (Z1 + r0) * C1), gain: (made * Z1) / (Z1 + r0) };
  const Z2 = legOhms(v, amps, 2, true);
  const C2 = v('C2');
  const first = (r0 + Z1) * C1 + Z1 * C2 + Z2 * C2;
  const square = (r0 + Z1) * C1 * Z2 * C2 + r0 * C1 * Z1 * C2;
  return {
    f0Hz: 1 / (TWO_PI * Math.sqrt(square)),
    q: Math.sqrt(square) / first,
    gain: (made * Z1 * Z2 * C1 * C2) / square,
  };
}

const drawingOf = (sections: 1 | 2): string => {
  const end = sections === 1 ? 14 : 24;
  const leg = (n: number) => {
    const x = 14 + 10 * (n - 1);
    return `capacitor C${n} ${x - 6},10 right / ${x - 2},10 ${x},10 / ${x},10 ${x},11 / diode D${n} ${x},11 down left / ground ${x},15
      ${x},10 ${x},9 / resistor RV${n} ${x},9 up right / ${x},5 ${x},4`;
  };
  return `in 0,10 / 0,10 1,10 / resistor RI 1,10 right / 5,10 8,10 / 6,10 6,11 / resistor RA 6,11 down left / ground 6,15
    ${leg(1)} ${sections === 2 ? `\n 14,10 18,10 / ${leg(2)} / 14,4 24,4` : ''}
    supply VC 14,3 / 14,3 14,4
    ${end},10 ${end + 3},10 / capacitor CO ${end + 3},10 right / ${end + 7},10 ${end + 13},10 / ${end + 10},10 ${end + 10},11 / resistor RO ${end + 10},11 down left / ground ${end + 10},15
    op-amp A1 ${end + 13},10 plus / ${end + 17},11 ${end + 23},11 / out ${end + 23},11
    ${end + 13},12 ${end + 12},12 ${end + 12},17 ${end + 14},17 / resistor R1 ${end + 14},17 right / ${end + 18},17 ${end + 20},17 ${end + 20},11
    ${end + 12},17 ${end + 12},18 / resistor R2 ${end + 12},18 down left / ground ${end + 12},22`;
};

function sectionsOf(sections: 1 | 2): Cell {
  const legs = sections === 1 ? [1] : [1, 2];
  const words =
    sections === 1
      ? { id: 'diode-section', name: 'Diode section', short: 'a capacitor and one diode' }
      : { id: 'diode-sections', name: 'Two diode sections', short: 'two capacitors, two diodes' };
  return {
    ...words,
    drawing: sketch(drawingOf(sections)),
    limits: { leastHz: 20, mostHz: 20_000 },
    usual: { lowHz: 100, highHz: 5000 },
    ownLaw: true,
    plan(ask) {
      const parts = {
        RI: { value: PAD[0] },
        RA: { value: PAD[1] },
        CO: { value: 1e-6 },
        RO: { value: LEAK },
        R1: { value: 100e3 },
        R2: { value: 1e3 },
      };
      const known = (farads: number) => (part: string) =>
        ({ RI: PAD[0], RA: PAD[1], RO: LEAK, R1: 100e3, R2: 1e3, C1: farads, C2: farads })[part] ??
        FEED;
      // The cut-off goes as one over the capacitors.
      const exact = figuresAt(known(1e-9), TOP_AMPS, sections).f0Hz / ask.highHz / 1e9;
      const farads = nearestPreferred(exact, 'E6');
      const hzAt = (u: number) => figuresAt(known(farads), Math.exp(u), sections).f0Hz;
      const volts = (hz: number) => {
        const amps = Math.exp(lastWhere((u) => hzAt(u) < hz, Math.log(1e-8), Math.log(1e-3)));
        return amps * FEED + diodeVolts(amps);
      };
      const [from, to] = [volts(ask.lowHz), volts(ask.highHz)];
      return {
        parts: {
          ...parts,
          VC: { value: from },
          ...Object.fromEntries(
            legs.flatMap((n): [string, CellPart][] => [
              [`C${n}`, { value: farads }],
              [`D${n}`, { model: SILICON }],
              [`RV${n}`, { value: FEED }],
            ]),
          ),
        },
        controls: [
          {
            for: 'cut-off',
            name: 'Cut-off',
            is: 'volts',
            span: { from, to },
            at: 0.4,
            moves: [{ part: 'VC', quantity: 'volts', from, to, law: 'even' }],
          },
        ],
      };
    },
    textbook: (v) => figuresAt(v, ampsOf(v), sections),
    agrees: 0.01,
    reasons: (v) => {
      const pad = v('RA') / (v('RA') + v('RI'));
      return [
        {
          of: legs.map((n) => `D${n}`).join(' '),
          text: 'For a small signal a resistance that the control current sets.',
          formula: 'r = \\frac{n V_T}{I}',
          numbers: `r = ${(PER_DIODE / ampsOf(v)).toPrecision(3)}\\ \\Omega`,
          rule: 'Rule of thumb: 25 mV over the current, 45 mV for ordinary diodes.',
        },
        {
          of: 'RI RA',
          text: `The signal itself opens the diodes from about n VT at them: here ${(PER_DIODE / pad).toPrecision(2)} V peak at the input. Above it the cut-off moves with the sound.`,
          formula: 'v_{in} < n V_T \\frac{R_I + R_A}{R_A}',
          numbers: `${(PER_DIODE * 1000).toPrecision(3)}\\ mV \\cdot ${(1 / pad).toPrecision(3)}`,
        },
        {
          of: 'R1 R2',
          text: 'Give back what the pad took, so that noise and hum of what follows stay below the sound.',
          formula: '1 + R_1 / R_2',
        },
        {
          of: legs.map((n) => `RV${n}`).join(' '),
          text: 'Each diode is fed for itself: two in a row from one resistor would share the current unevenly. What feeds them also shunts the signal, which ends the range at the bottom.',
        },
      ];
    },
    about: `${sections === 1 ? 'A capacitor and a shunt leg' : 'Two capacitors and two shunt legs'} that ${sections === 1 ? 'is a diode' : 'are diodes'}: a high-pass whose resistance is a junction’s, set by the current that a control voltage drives through it.`,
    control:
      'A voltage through a resistor and the diode: below half a volt the current rises as an exponential, above in proportion.',
    bias: 'The capacitors keep the diodes’ half volt from the source and from the amplifier: both rest at ground.',
    avoid:
      'More than some tens of millivolts at the diodes, and a control that jumps: it is heard as a thump, because the diodes’ own voltage moves with it.',
  };
}

export const diodeSection = sectionsOf(1);
export const diodeSections = sectionsOf(2);
