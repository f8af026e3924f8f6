import { biasStageOf } from '@/core/bias';
import type { BiasAsk, BiasParts, BiasStage } from '@/core/bias/stage';
import { ReedError } from '@/core/errors';
import { plannedStage } from './planned-stage';
import type { Stage } from './schema';

/** What is asked where nothing is said. */
export const USUAL_BIAS: BiasAsk = {
  volts: 9,
  amps: 1e-3,
  gain: 10,
  sourceOhms: 10e3,
  loadOhms: 47e3,
};

/** A transistor stage, planned. */
export const biasedStage = (id: string, made: BiasStage, ask: BiasAsk): Stage => ({
  ...plannedStage({ id, name: made.name, drawing: made.drawing, parts: made.plan(ask) }),
  bias: { stage: made.id, ask },
});

/** The transistor stage that a stage was planned as. */
export function biasOf(stage: Stage | undefined): { made: BiasStage; ask: BiasAsk } {
  const made = biasStageOf(stage?.bias?.stage);
  if (!stage?.bias || !made) throw new ReedError('range', 'This stage is no transistor stage.');
  return { made, ask: stage.bias.ask };
}

/** Its parts as they stand. */
export const partsAsBias = ({ parts }: Stage): BiasParts =>
  Object.fromEntries(Object.entries(parts).map(([id, { value, model }]) => [id, { value, model }]));
