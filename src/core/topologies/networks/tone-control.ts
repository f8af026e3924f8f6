import { over, plus, type Complex } from '@/core/numeric/complex';
import { sketch } from '@/core/drawing/sketch';
import { checkAsk, TWO_PI, type StageFigures, type Topology, type Values } from '../topology';
import { because, type Why } from '../why';

/*
 * Passive bass and treble control: each knob divides the input between a branch to the signal and a
 * branch to ground, and both wipers meet at the output. A knob's track is drawn as its two halves.
 * The tracks are audio tapers with a tenth below the middle, so that the middle is flat.
 */

const TRACK = 100_000;
const TAPER = 80;
/** Part of the track between wiper and ground end for a knob position 0 to 1: (81^p - 1) / 80. */
const below = (position: number) => ((1 + TAPER) ** position - 1) / TAPER;
const position = (fraction: number) => Math.log(1 + TAPER * fraction) / Math.log(1 + TAPER);

/** Least resistance left in a half: a wiper never reaches the end quite. */
const END = 1e-4;

function figures({ C1, R4, R5, R6, R7 }: Values): StageFigures {
  return {
    f0Hz: 10 / (TWO_PI * (R4 + R5) * C1),
    gain: 1 / 11,
    own: { bass: position(R5 / (R4 + R5)), treble: position(R7 / (R6 + R7)) },
  };
}

function designValues(f0Hz: number, bass: number, treble: number): Values {
  const C1 = 10 / (TWO_PI * f0Hz * TRACK);
  const half = (p: number) => Math.min(1 - END, Math.max(END, below(p)));
  return {
    R1: TRACK / 10,
    R2: TRACK / 100,
    R3: TRACK / 10,
    R4: TRACK * (1 - half(bass)),
    R5: TRACK * half(bass),
    R6: TRACK * (1 - half(treble)),
    R7: TRACK * half(treble),
    C1,
    C2: C1 * 10,
    C3: C1 / 10,
    C4: C1,
  };
}

/** The two dividers as sources behind their own impedance, meeting at the output. */
function transfer(v: Values, hz: number): Complex {
  const w = TWO_PI * hz;
  const ohms = (re: number): Complex => ({ re, im: 0 });
  const cap = (farads: number): Complex => ({ re: 0, im: -1 / (w * farads) });
  const beside = (a: Complex, b: Complex) =>
    over({ re: 1, im: 0 }, plus(over({ re: 1, im: 0 }, a), over({ re: 1, im: 0 }, b)));
  const branch = (up: Complex, down: Complex, series: number) => ({
    volts: over(down, plus(up, down)),
    z: plus(beside(up, down), ohms(series)),
  });
  const bass = branch(
    plus(ohms(v.R1), beside(ohms(v.R4), cap(v.C1))),
    plus(ohms(v.R2), beside(ohms(v.R5), cap(v.C2))),
    v.R3,
  );
  const treble = branch(plus(cap(v.C3), ohms(v.R6)), plus(cap(v.C4), ohms(v.R7)), 0);
  return over(
    plus(over(bass.volts, bass.z), over(treble.volts, treble.z)),
    plus(over(ohms(1), bass.z), over(ohms(1), treble.z)),
  );
}

export const toneControl: Topology = {
  id: 'tone-control',
  name: 'Passive tone control',
  short: 'bass and treble',
  asWords: 'a passive tone control',
  kind: 'network',
  order: 4,
  opAmps: 0,
  gain: 'given',
  needsMatching: true,
  limits: { gain: [1 / 11, 1 / 11], own: { bass: [0.01, 0.99], treble: [0.01, 0.99] } },
  drawing:
    sketch(`in 0,2 / 0,2 16,2 / 4,2 4,3 / resistor R1 4,3 down left / 4,7 4,8 / resistor R4 4,8 down left
    4,8 8,8 / capacitor C1 8,8 down right / 4,12 8,12 / resistor R5 4,12 down left / capacitor C2 8,12 down right / 4,16 8,16
    4,16 4,17 / resistor R2 4,17 down left / ground 4,21
    4,12 8,12 / 8,12 10,12 / resistor R3 10,12 right / 14,12 16,12 / 16,12 20,12
    16,2 16,3 / capacitor C3 16,3 down right / resistor R6 16,7 down right / 16,11 16,13 / resistor R7 16,13 down right
    16,17 16,18 / capacitor C4 16,18 down right / ground 16,22 / out 20,12`),
  design(ask) {
    checkAsk(this, ask);
    return designValues(ask.f0Hz, ask.own?.bass ?? 0.5, ask.own?.treble ?? 0.5);
  },
  figures,
  transfer(f, hz) {
    return transfer(designValues(f.f0Hz, f.own!.bass, f.own!.treble), hz);
  },
  explain(values) {
    const f = figures(values);
    const track = values.R4 + values.R5;
    const named = { ...f, own: { ...f.own, P: track } };
    const halves = (parts: string, knob: string): Why[] =>
      parts.split(' ').map((of, i) => ({
        of,
        text: `The ${i === 0 ? 'upper' : 'lower'} half of the ${knob} track at its present position.`,
      }));
    return because(values, named, [
      {
        of: 'R1',
        formula: '\\frac{@R4 + @R5}{10}',
        text: 'A tenth of the track: how far bass can be lifted.',
      },
      {
        of: 'R2',
        formula: '\\frac{@R4 + @R5}{100}',
        text: 'A hundredth of the track: how far bass can be cut.',
      },
      {
        of: 'R3',
        formula: '\\frac{@R4 + @R5}{10}',
        text: 'Keeps the treble knob from being shorted by the bass branch.',
      },
      ...halves('R4 R5', 'bass'),
      ...halves('R6 R7', 'treble'),
      {
        of: 'C1',
        formula: '\\frac{10}{2\\pi @f0 (@R4 + @R5)}',
        text: 'From the middle frequency upwards it bridges the bass knob.',
      },
      {
        of: 'C2',
        formula: '10 @C1',
        text: 'Ten times C1, as R1 is ten times R2: the divider is the same at high frequencies.',
      },
      { of: 'C3', formula: '\\frac{@C1}{10}', text: 'Lets only treble into its knob.' },
      { of: 'C4', formula: '10 @C3', text: 'Ten times C3: the middle position is flat.' },
      {
        of: 'f0',
        formula: '\\frac{10}{2\\pi (@R4 + @R5) @C1}',
        text: 'Where bass and treble ranges meet.',
      },
    ]);
  },
  about:
    'Each knob moves its range up or down around a flat middle at about 21 dB below the input; the loss is what lifting is made of.',
  outputs: 'One, where both knobs meet; it wants a load of a few hundred kilohms.',
  tuning: 'The knobs; C1 to C4 together move the middle.',
  sensitivity: 'By ear only: tracks are seldom better than twenty per cent.',
  avoid: 'It costs 21 dB: make the gain up behind it, where the noise is already in.',
};
