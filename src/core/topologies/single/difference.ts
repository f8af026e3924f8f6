import { FLAT_HZ } from '../pad';
import { sketch } from '@/core/drawing/sketch';
import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';

const figures = ({ R1, R2, R3, R4 }: Values): StageFigures => ({
  f0Hz: FLAT_HZ,
  gain: (R4 / (R3 + R4)) * (1 + R2 / R1),
});

export const difference: Topology = {
  id: 'difference',
  name: 'Difference amplifier',
  short: 'difference',
  asWords: 'a difference amplifier',
  kind: 'gain',
  order: 0,
  opAmps: 1,
  gain: 'settable',
  limits: { gain: [0.001, 1000] },
  drawing: sketch(`in 0,8 / 0,8 4,8 / resistor R3 4,8 right / 8,8 14,8 / op-amp A1 14,6 minus
    resistor R4 10,8 down left / ground 10,12
    resistor R1 4,6 right / 8,6 14,6 / 4,6 2,6 2,4 / input minus 2,4
    11,6 11,3 13,3 / resistor R2 13,3 right / 17,3 20,3 20,7 / 18,7 23,7 / out 23,7`),
  design(ask, choice) {
    checkAsk(this, ask);
    const gain = ask.gain ?? 1;
    const R1 = choice?.ohms ?? 10_000;
    return { R1, R2: gain * R1, R3: R1, R4: gain * R1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1 R3',
        formula: '\\frac{@R2}{@gain}',
        text: 'Equal on both sides, or what is common to both inputs comes through.',
      },
      { of: 'R2 R4', formula: '@gain @R1', text: 'Equal on both sides too.' },
      {
        of: 'gain',
        formula: '\\frac{@R4}{@R3 + @R4}\\left(1 + \\frac{@R2}{@R1}\\right)',
        text: 'With matched pairs simply R2/R1 for the difference of the inputs.',
        rule: 'Rule of thumb: 1 % resistors leave about 1/50 of what is common at unity gain (34 dB).',
      },
    ]),
  about:
    'One input through a divider to the plus side, the other inverted: only their difference is amplified. It takes hum off a line that carries it on both wires.',
  outputs: 'The op-amp’s output. The minus input stands at ground while nothing is joined to it.',
  tuning: 'Trim R4 for the least of what both inputs share.',
  sensitivity: 'The rejection of the common part lives on the matching of four resistors.',
  avoid: 'The two inputs load their sources unequally; buffer them for real rejection.',
};
