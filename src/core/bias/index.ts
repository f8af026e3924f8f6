import { commonEmitter, commonEmitterBuffered, commonEmitterOpen } from './common-emitter';
import { feedbackPair } from './feedback-pair';
import { bootstrappedFollower, follower } from './follower';
import type { BiasStage } from './stage';

/** Every transistor stage. A new one is one file and one line here. */
export const BIAS_STAGES: readonly BiasStage[] = [
  follower,
  bootstrappedFollower,
  commonEmitter,
  commonEmitterOpen,
  commonEmitterBuffered,
  feedbackPair,
];

export const biasStageOf = (id: string | undefined): BiasStage | undefined =>
  BIAS_STAGES.find((s) => s.id === id);
