import { sketch } from '@/core/drawing/sketch';
import { BLEEDS, capacitor, dividerFor, resistor, transistor } from './parts';
import {
  BASE_EMITTER,
  beside,
  BETA,
  THUMB_VOLTS,
  type BiasAsk,
  type BiasParts,
  type BiasStage,
  type BiasValues,
} from './stage';

/** Of the supply that stands across the emitter’s resistors: enough that 0.1 V more or less from base to emitter counts little. */
const AT_EMITTER = 0.1;

type Kind = 'bypassed' | 'open' | 'buffered';

/** Collector, emitter and divider for what is asked. */
function planned(ask: BiasAsk, collectorLoad: number, kind: Kind): BiasParts {
  const { volts, amps, gain } = ask;
  const emitter = Math.max(AT_EMITTER * volts, 0.4);
  // The collector rests half way between its two ends.
  const RC = resistor((volts - emitter) / 2 / amps);
  const whole = emitter / amps;
  const load = beside(RC.value, collectorLoad);
  const wanted = Math.max(load / gain - THUMB_VOLTS / amps, 0);
  const RE1 = kind === 'open' ? resistor(whole) : resistor(Math.min(wanted, whole));
  return {
    VS: { value: volts },
    RC,
    RE1,
    ...(kind === 'open'
      ? {}
      : {
          RE2: resistor(Math.max(whole - RE1.value, 1)),
          CE: capacitor(THUMB_VOLTS / amps + RE1.value),
        }),
    ...dividerFor(volts, emitter + BASE_EMITTER, amps),
    Q1: transistor(),
    CI: capacitor(ask.sourceOhms + 1e3),
    CO: capacitor(ask.loadOhms),
    RO: resistor(BLEEDS),
  };
}

const emitterOhms = (v: BiasValues, kind: Kind): number =>
  kind === 'open' ? v('RE1') : v('RE1') + v('RE2');

function restOf(v: BiasValues, kind: Kind) {
  const base = (v('VS') * v('R2')) / (v('R1') + v('R2'));
  const emitter = base - BASE_EMITTER;
  const amps = emitter / emitterOhms(v, kind);
  return { base, emitter, collector: v('VS') - amps * v('RC'), amps };
}

const input = `in 0,14 / 0,14 1,14 / capacitor CI 1,14 right / 5,14 11,14 / 8,14 8,13 / resistor R1 8,13 up left / 8,9 8,4 / 8,14 8,15 / resistor R2 8,15 down left / ground 8,19
    npn-transistor Q1 11,14 right / 13,12 13,9 / resistor RC 13,9 up right / 13,5 13,4
    13,16 13,17 / resistor RE1 13,17 down right / 13,21 13,22`;
const bypassed = `resistor RE2 13,22 down right / ground 13,26 / 13,21 18,21 / capacitor CE 18,21 down right / ground 18,25`;
const toOut = `13,11 19,11 / capacitor CO 19,11 right / 23,11 29,11 / out 29,11 / 25,11 25,12 / resistor RO 25,12 down right / ground 25,16 / 8,4 13,4 / supply VS 10,3 / 10,3 10,4`;

const rulesOf =
  (kind: Exclude<Kind, 'buffered'>): BiasStage['rules'] =>
  (v, ask) => {
    const q = restOf(v, kind);
    const re = THUMB_VOLTS / q.amps;
    return {
      gain: -beside(v('RC'), ask.loadOhms) / (re + v('RE1')),
      inputOhms: beside(v('R1'), v('R2'), BETA * (re + v('RE1'))),
      outputOhms: v('RC'),
      rest: { Q1: q },
    };
  };

export const commonEmitter: BiasStage = {
  id: 'common-emitter',
  name: 'Common emitter',
  short: 'a common emitter',
  hasGain: true,
  drawing: sketch(`${input}\n${bypassed}\n${toOut}`),
  plan: (ask) => planned(ask, ask.loadOhms, 'bypassed'),
  rules: rulesOf('bypassed'),
  divider: { upper: 'R1', lower: 'R2', base: 'Q1' },
  improve: [
    { to: 'common-emitter-open', by: 'emitter resistor' },
    { to: 'common-emitter-buffered', by: 'buffer' },
  ],
  about:
    'The base’s volts become a current in the emitter’s resistor, the same current drops volts across the collector’s: turned over, and as many times larger as one is larger than the other. The upper part of the emitter’s resistor sets the gain, both together the rest.',
};

export const commonEmitterOpen: BiasStage = {
  id: 'common-emitter-open',
  name: 'Common emitter, nothing bypassed',
  short: 'with all of its emitter resistor',
  hasGain: false,
  drawing: sketch(`${input} / ground 13,22\n${toOut}`),
  plan: (ask) => planned(ask, ask.loadOhms, 'open'),
  rules: rulesOf('open'),
  divider: { upper: 'R1', lower: 'R2', base: 'Q1' },
  improve: [{ to: 'common-emitter', by: 'bypassing the emitter' }],
  about:
    'Without the capacitor the whole emitter’s resistor works against the signal too: little gain, that hardly depends on the transistor, a higher input, and far less bending.',
};

export const commonEmitterBuffered: BiasStage = {
  id: 'common-emitter-buffered',
  name: 'Common emitter with a buffer',
  short: 'with a follower behind it',
  hasGain: true,
  drawing: sketch(`${input}\n${bypassed}
    13,11 20,11 / npn-transistor Q2 20,11 right / 22,9 22,4 / 8,4 22,4 / supply VS 15,3 / 15,3 15,4
    22,13 22,15 / resistor RE 22,15 down right / ground 22,19 / 22,14 27,14 / capacitor CO 27,14 right / 31,14 37,14 / out 37,14 / 33,14 33,15 / resistor RO 33,15 down right / ground 33,19`),
  plan(ask) {
    const first = planned(ask, BETA * ask.loadOhms, 'buffered');
    const collector = ask.volts - ask.amps * first.RC.value!;
    return {
      ...first,
      RE: resistor((collector - BASE_EMITTER) / ask.amps),
      Q2: transistor(),
    };
  },
  rules(v, ask) {
    const q = restOf(v, 'buffered');
    const re = THUMB_VOLTS / q.amps;
    const emitter = q.collector - BASE_EMITTER;
    const amps = emitter / v('RE');
    const load = beside(v('RE'), ask.loadOhms);
    const re2 = THUMB_VOLTS / amps;
    const collector = beside(v('RC'), BETA * (re2 + load));
    return {
      gain: (-collector / (re + v('RE1'))) * (load / (load + re2)),
      inputOhms: beside(v('R1'), v('R2'), BETA * (re + v('RE1'))),
      outputOhms: beside(v('RE'), re2 + v('RC') / BETA),
      rest: { Q1: q, Q2: { base: q.collector, emitter, collector: v('VS'), amps } },
    };
  },
  divider: { upper: 'R1', lower: 'R2', base: 'Q1' },
  improve: [{ to: 'common-emitter', by: 'leaving the buffer out' }],
  about:
    'A follower hangs on the collector: the load no longer stands beside the collector’s resistor, and the gain no longer depends on it.',
};
