import { shelfFigures } from '../shelf';
import {
  checkAsk,
  startCapacitor,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because } from '../why';
import { breakHz, DIVIDER_WHY, midGain, returningEdge, shapedGainDrawing } from './shaped-gain';

/** H = (K + s RF CF) / (1 + s RF CF): full gain below, one above. */
function figures(values: Values): StageFigures {
  const K = midGain(values);
  const tau = values.RF * values.CF;
  return { ...shelfFigures('high-shelf', K, tau / K, tau), own: { K } };
}

export const shapedGainTop: Topology = {
  id: 'shaped-gain-top',
  name: 'Gain stage with its top trimmed',
  short: 'gain, top trimmed',
  asWords: 'a gain stage with its top trimmed',
  kind: 'high-shelf',
  order: 1,
  opAmps: 1,
  gain: 'settable',
  limits: { gain: [1.1, 100] },
  onlyByName: true,
  drawing: shapedGainDrawing(true, false),
  /** The height of the shelf is the gain: f0 = sqrt(K) times the break point of RF and CF. */
  design(ask, choice) {
    const K = ask.gain ?? 4;
    checkAsk(this, { ...ask, gain: K });
    const CF = startCapacitor(ask.f0Hz / Math.sqrt(K), choice);
    const RF = Math.sqrt(K) / (2 * Math.PI * ask.f0Hz * CF);
    return { RF, RG: RF / (K - 1), CF };
  },
  figures,
  explain(values) {
    const f = figures(values);
    const pole = breakHz(values.RF, values.CF);
    return because(values, { ...f, own: { ...f.own, fb: pole } }, [
      ...DIVIDER_WHY,
      {
        of: 'CF',
        formula: '\\frac{1}{2\\pi @fb @RF}',
        text: 'Shorts the feedback resistor at high notes, so that the gain falls towards one.',
        rule: `Rule of thumb: the edge is at ${pole.toPrecision(4)} Hz. Exact: ${returningEdge(pole, f.own!.K, 'upper')}`,
      },
      {
        of: 'f0',
        formula: '\\frac{\\sqrt{@K}}{2\\pi @RF @CF}',
        text: 'Half way down in dB between the full gain and one.',
      },
      { of: 'gain', formula: '1 + \\frac{@RF}{@RG}', text: 'The gain below the break point.' },
    ]);
  },
  about:
    'One capacitor across the feedback resistor takes the top off a gain stage. It does not go on falling: it returns to a gain of one.',
  outputs: 'The op-amp’s output.',
  tuning: 'CF moves the break point; RG the gain.',
  sensitivity: 'One to one.',
  avoid: 'Where the top shall fall for good, put an RC behind it.',
};
