import { sketch } from '@/core/drawing/sketch';
import { BLEEDS, capacitor, dividerFor, resistor, transistor } from './parts';
import {
  BASE_EMITTER,
  beside,
  BETA,
  THUMB_VOLTS,
  type BiasAsk,
  type BiasStage,
  type BiasValues,
} from './stage';

/** What a follower’s emitter works into. */
const emitterLoad = (v: BiasValues, ask: BiasAsk): number => beside(v('RE'), ask.loadOhms);

function rest(v: BiasValues) {
  const base = (v('VS') * v('R2')) / (v('R1') + v('R2'));
  const emitter = base - BASE_EMITTER;
  return { base, emitter, collector: v('VS'), amps: emitter / v('RE') };
}

const planned = (ask: BiasAsk) => {
  const middle = ask.volts / 2;
  const RE = resistor(middle / ask.amps);
  return {
    VS: { value: ask.volts },
    RE,
    ...dividerFor(ask.volts, middle + BASE_EMITTER, ask.amps),
    Q1: transistor(),
    CO: capacitor(ask.loadOhms),
    RO: resistor(BLEEDS),
  };
};

export const follower: BiasStage = {
  id: 'follower',
  name: 'Follower',
  short: 'a follower',
  hasGain: false,
  drawing:
    sketch(`in 0,12 / 0,12 1,12 / capacitor CI 1,12 right / 5,12 11,12 / 8,12 8,11 / resistor R1 8,11 up left / 8,7 8,4 / 8,12 8,13 / resistor R2 8,13 down left / ground 8,17
    npn-transistor Q1 11,12 right / 13,10 13,4 / 8,4 13,4 / supply VS 10,3 / 10,3 10,4
    13,14 13,16 / resistor RE 13,16 down right / ground 13,20 / 13,15 18,15 / capacitor CO 18,15 right / 22,15 28,15 / out 28,15 / 24,15 24,16 / resistor RO 24,16 down right / ground 24,20`),
  plan(ask) {
    const parts = planned(ask);
    return { ...parts, CI: capacitor(beside(parts.R1.value!, parts.R2.value!)) };
  },
  rules(v, ask) {
    const q = rest(v);
    const re = THUMB_VOLTS / q.amps;
    const load = emitterLoad(v, ask);
    const divider = beside(v('R1'), v('R2'));
    return {
      gain: load / (load + re),
      inputOhms: beside(divider, BETA * (re + load)),
      outputOhms: beside(v('RE'), re + beside(ask.sourceOhms, divider) / BETA),
      rest: { Q1: q },
    };
  },
  divider: { upper: 'R1', lower: 'R2', base: 'Q1' },
  improve: [{ to: 'bootstrapped-follower', by: 'bootstrap' }],
  about:
    'The emitter follows the base at six tenths of a volt below: no gain in volts, but what drives it sees the load β times as large, and the load sees the source β times as small. What is left of the input is the divider.',
};

export const bootstrappedFollower: BiasStage = {
  id: 'bootstrapped-follower',
  name: 'Bootstrapped input',
  short: 'a follower that lifts its own divider',
  hasGain: false,
  drawing:
    sketch(`in 0,12 / 0,12 1,12 / capacitor CI 1,12 right / 5,12 17,12 / 15,12 15,13 / resistor R3 15,13 down right / 15,17 15,18 8,18
    8,18 8,11 / resistor R1 8,11 up left / 8,7 8,4 / 8,18 8,19 / resistor R2 8,19 down left / ground 8,23
    npn-transistor Q1 17,12 right / 19,10 19,4 / 8,4 19,4 / supply VS 13,3 / 13,3 13,4
    19,14 19,16 / resistor RE 19,16 down right / ground 19,20 / 19,15 26,15 / capacitor CO 26,15 right / 30,15 36,15 / out 36,15 / 32,15 32,16 / resistor RO 32,16 down right / ground 32,20
    23,15 23,22 15,22 / capacitor CB 15,22 left / 11,22 11,18`),
  plan(ask) {
    const parts = planned(ask);
    const divider = beside(parts.R1.value!, parts.R2.value!);
    return {
      ...parts,
      R3: resistor(divider / 2),
      CB: capacitor(divider / 2),
      // The input is far above the divider: a small one passes.
      CI: capacitor(5 * divider),
    };
  },
  rules(v, ask) {
    const q = rest(v);
    const re = THUMB_VOLTS / q.amps;
    const divider = beside(v('R1'), v('R2'));
    // For a signal the divider hangs on the emitter.
    const load = beside(emitterLoad(v, ask), divider);
    const gain = load / (load + re);
    return {
      gain,
      inputOhms: beside(v('R3') / (1 - gain), BETA * (re + load)),
      outputOhms: beside(v('RE'), divider, re + ask.sourceOhms / BETA),
      rest: { Q1: q },
    };
  },
  divider: { upper: 'R1', lower: 'R2', base: 'Q1' },
  improve: [{ to: 'follower', by: 'leaving the bootstrap out' }],
  about:
    'A capacitor lifts the foot of the base’s resistor with the signal: both ends move together, next to no current flows in it, and the divider no longer loads the source.',
};
