import { biasStageOf } from '@/core/bias';
import type { BiasAsk, BiasParts, BiasStage } from '@/core/bias/stage';
import { ReedError } from '@/core/errors';
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
export function biasedStage(id: string, made: BiasStage, ask: BiasAsk): Stage {
  const { symbols, wires } = made.drawing;
  return {
    id,
    name: made.name,
    bias: { stage: made.id, ask },
    drawing: structuredClone({ symbols, wires }),
    origin: 'hand',
    bypassed: false,
    parts: Object.fromEntries(
      Object.entries(made.plan(ask)).map(([part, { value, model }]) => [
        part,
        {
          ...(value === undefined ? {} : { value }),
          chosen: 'hand' as const,
          ...(model ? { model } : {}),
        },
      ]),
    ),
  };
}

/** The transistor stage that a stage was planned as. */
export function biasOf(stage: Stage | undefined): { made: BiasStage; ask: BiasAsk } {
  const made = biasStageOf(stage?.bias?.stage);
  if (!stage?.bias || !made) throw new ReedError('range', 'This stage is no transistor stage.');
  return { made, ask: stage.bias.ask };
}

/** Its parts as they stand. */
export const partsAsBias = ({ parts }: Stage): BiasParts =>
  Object.fromEntries(Object.entries(parts).map(([id, { value, model }]) => [id, { value, model }]));
