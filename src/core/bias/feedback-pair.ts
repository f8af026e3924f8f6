import { sketch } from '@/core/drawing/sketch';
import { BLEEDS, capacitor, resistor, transistor } from './parts';
import { BASE_EMITTER, beside, BETA, THUMB_VOLTS, type BiasStage } from './stage';

/** Volts across the second emitter’s resistor, and across the first’s: what holds the rest. */
const SECOND_EMITTER = 1.2;
const FIRST_EMITTER = 0.1;
/** The first carries this part of the second’s current. */
const FIRST_PART = 0.2;

/**
 * Two common emitters in a row, fed back twice: for direct current from the second emitter to the first
 * base, which holds the rest; for the signal from the second collector to the first emitter, which sets
 * the gain (P. R. Gray, R. G. Meyer, "Analysis and Design of Analog Integrated Circuits", chapter 8,
 * series-shunt feedback): gain 1 + RF/RE1 as long as the pair alone makes far more.
 */
export const feedbackPair: BiasStage = {
  id: 'feedback-pair',
  name: 'Feedback pair',
  short: 'two transistors, fed back',
  hasGain: true,
  drawing:
    sketch(`in 0,14 / 0,14 1,14 / capacitor CI 1,14 right / 5,14 10,14 / npn-transistor Q1 10,14 right / 12,12 12,9 / resistor RC1 12,9 up left / 12,5 12,4 24,4
    12,16 12,18 / resistor RE1 12,18 down right / ground 12,22
    12,11 22,11 / npn-transistor Q2 22,11 right / 24,9 24,8 / resistor RC2 24,8 up right / 24,4 24,3 / supply VS 24,2 / 24,2 24,3
    24,13 24,15 / resistor RE2 24,15 down left / ground 24,19 / 24,14 29,14 29,15 / capacitor CE2 29,15 down right / ground 29,19
    29,14 31,14 31,25 14,25 / resistor RB 14,25 left / 10,25 7,25 7,14
    24,8 31,8 / 31,8 34,8 34,21 26,21 / capacitor CF 26,21 left / resistor RF 22,21 left / 18,21 16,21 16,17 12,17
    33,8 35,8 / capacitor CO 35,8 right / 39,8 45,8 / out 45,8 / 41,8 41,9 / resistor RO 41,9 down right / ground 41,13`),
  plan(ask) {
    const { volts, amps, gain } = ask;
    const first = FIRST_PART * amps;
    const RE1 = resistor(FIRST_EMITTER / first);
    const RC2 = resistor((volts - SECOND_EMITTER) / 2 / amps);
    const RF = resistor(Math.max(gain - 1, 0.1) * RE1.value);
    const held = BASE_EMITTER + FIRST_EMITTER;
    return {
      VS: { value: volts },
      Q1: transistor(),
      Q2: transistor(),
      RC1: resistor((volts - SECOND_EMITTER - BASE_EMITTER) / first),
      RE1,
      RC2,
      RE2: resistor(SECOND_EMITTER / amps),
      RB: resistor(((SECOND_EMITTER - held) * BETA) / first),
      RF,
      CE2: capacitor(THUMB_VOLTS / amps),
      CF: capacitor(RF.value),
      CI: capacitor(ask.sourceOhms + 10e3),
      CO: capacitor(ask.loadOhms),
      RO: resistor(BLEEDS),
    };
  },
  rules(v, ask) {
    const second = SECOND_EMITTER / v('RE2');
    const firstCollector = SECOND_EMITTER + BASE_EMITTER;
    const amps = (v('VS') - firstCollector) / v('RC1');
    const emitter = amps * v('RE1');
    const re1 = THUMB_VOLTS / amps;
    const re2 = THUMB_VOLTS / second;
    const gain = 1 + v('RF') / v('RE1');
    const load = beside(v('RC2'), ask.loadOhms, v('RF') + v('RE1'));
    const alone = (beside(v('RC1'), BETA * re2) / (re1 + beside(v('RE1'), v('RF')))) * (load / re2);
    return {
      gain,
      inputOhms: beside(v('RB'), (BETA * re1 * alone) / gain),
      outputOhms: (v('RC2') * gain) / alone,
      rest: {
        Q1: { base: emitter + BASE_EMITTER, emitter, collector: firstCollector, amps },
        Q2: {
          base: firstCollector,
          emitter: SECOND_EMITTER,
          collector: v('VS') - second * v('RC2'),
          amps: second,
        },
      },
    };
  },
  divider: null,
  improve: [{ to: 'common-emitter-buffered', by: 'doing without the feedback' }],
  about:
    'The second emitter feeds the first base: more current there pulls its own base down, so the rest holds itself. The second collector feeds the first emitter: two resistors set the gain, and what the transistors differ by hardly counts.',
};
