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

/** H = (1 + s (RF+RG) CG) / (1 + s RG CG): one below, full gain above. */
function figures(values: Values): StageFigures {
  const K = midGain(values);
  const tau = values.RG * values.CG;
  return { ...shelfFigures('low-shelf', 1, tau * K, tau), own: { K } };
}

export const shapedGainBottom: Topology = {
  id: 'shaped-gain-bottom',
  name: 'Gain stage with its bottom trimmed',
  short: 'gain, bottom trimmed',
  asWords: 'a gain stage with its bottom trimmed',
  kind: 'low-shelf',
  order: 1,
  opAmps: 1,
  gain: 'settable',
  limits: { gain: [1.1, 100] },
  onlyByName: true,
  drawing: shapedGainDrawing(false, true),
  design(ask, choice) {
    const K = ask.gain ?? 4;
    checkAsk(this, { ...ask, gain: K });
    const CG = startCapacitor(ask.f0Hz * Math.sqrt(K), choice);
    const RG = 1 / (2 * Math.PI * ask.f0Hz * CG * Math.sqrt(K));
    return { RF: RG * (K - 1), RG, CG };
  },
  figures,
  explain(values) {
    const f = figures(values);
    const pole = breakHz(values.RG, values.CG);
    return because(values, { ...f, own: { ...f.own, fb: pole } }, [
      ...DIVIDER_WHY,
      {
        of: 'CG',
        formula: '\\frac{1}{2\\pi @fb @RG}',
        text: 'Opens the divider’s foot at low notes, so that the gain falls towards one.',
        rule: `Rule of thumb: the edge is at ${pole.toPrecision(4)} Hz. Exact: ${returningEdge(pole, f.own!.K, 'lower')}`,
      },
      {
        of: 'f0',
        formula: '\\frac{1}{2\\pi @RG @CG\\sqrt{@K}}',
        text: 'Half way down in dB between the full gain and one.',
      },
      { of: 'gain', formula: '1 + \\frac{@RF}{@RG}', text: 'The gain above the break point.' },
    ]);
  },
  about:
    'A capacitor in the foot of the divider: full gain for music, one for d.c., so that offsets are not amplified.',
  outputs: 'The op-amp’s output.',
  tuning: 'CG moves the break point; RF the gain.',
  sensitivity: 'One to one.',
  avoid: 'It does not block d.c.: that comes through with a gain of one.',
};
