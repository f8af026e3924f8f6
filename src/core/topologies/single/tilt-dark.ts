import { highShelfCut } from './high-shelf-cut';
import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';

/** The cutting shelf about its own middle: the gain is that at f0. */
function figures(values: Values): StageFigures {
  const { f0Hz, gain, boost } = highShelfCut.figures(values);
  return { f0Hz, gain: gain * Math.sqrt(boost!), boost };
}

export const tiltDark: Topology = {
  ...highShelfCut,
  id: 'tilt-dark',
  name: 'Tilt, darker',
  short: 'tilt',
  asWords: 'a darkening tilt',
  kind: 'tilt',
  limits: { gain: [-4, -0.25], boost: [0.0625, 0.98] },
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    return highShelfCut.design({ ...ask, gain: gain / Math.sqrt(ask.boost!) }, choice);
  },
  figures,
  explain: (values) => highShelfCut.explain(values),
  about:
    'The whole range turns about f0: above it is lowered by half the height, below it is lifted by as much.',
};
