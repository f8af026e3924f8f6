import { highShelfLift } from './high-shelf-lift';
import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';

/** The lifting shelf about its own middle: the gain is that at f0. */
function figures(values: Values): StageFigures {
  const { f0Hz, gain, boost } = highShelfLift.figures(values);
  return { f0Hz, gain: gain * Math.sqrt(boost!), boost };
}

export const tiltBright: Topology = {
  ...highShelfLift,
  id: 'tilt-bright',
  name: 'Tilt, brighter',
  short: 'tilt',
  asWords: 'a brightening tilt',
  kind: 'tilt',
  limits: { gain: [-4, -0.25], boost: [1.02, 16] },
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    return highShelfLift.design({ ...ask, gain: gain / Math.sqrt(ask.boost!) }, choice);
  },
  figures,
  explain: (values) => highShelfLift.explain(values),
  about:
    'The whole range turns about f0: above it is lifted by half the height, below it is lowered by as much.',
};
