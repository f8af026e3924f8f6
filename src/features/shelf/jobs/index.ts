import { PEOPLE, type Job } from './job';
import { allOutputs } from './all-outputs';
import { bank } from './bank';
import { blockDc } from './block-dc';
import { coils } from './coils';
import { flatLow } from './flat-low';
import { gainFilter } from './gain-filter';
import { hum } from './hum';
import { keepRumble } from './keep-rumble';
import { learnLoading } from './learn-loading';
import { learnRc } from './learn-rc';
import { lift } from './lift';
import { meetLimits } from './meet-limits';
import { oneBand } from './one-band';
import { pad } from './pad';
import { shelf } from './shelf';
import { steepLow } from './steep-low';
import { tameTop } from './tame-top';
import { threeWays } from './three-ways';
import { threeWaysActive } from './three-ways-active';
import { tone } from './tone';
import { trace } from './trace';
import { transistorStage } from './transistor-stage';
import { trimGainBottom } from './trim-gain-bottom';
import { trimGainTop } from './trim-gain-top';
import { turnPhase } from './turn-phase';
import { twoWays } from './two-ways';
import { twoWaysActive } from './two-ways-active';
import { voiceBox } from './voice-box';
import { voiceCascade } from './voice-cascade';
import { voiceGate } from './voice-gate';
import { voiceLadder } from './voice-ladder';
import { voiceStateVariable } from './voice-state-variable';
import { voiceSteep } from './voice-steep';
import { voiceTreadle } from './voice-treadle';

export { PEOPLE, type Job } from './job';

/** What can be begun: one file and one line each. */
const ALL: readonly Job[] = [
  learnRc,
  learnLoading,
  tameTop,
  blockDc,
  flatLow,
  keepRumble,
  steepLow,
  gainFilter,
  oneBand,
  hum,
  allOutputs,
  turnPhase,
  trimGainTop,
  trimGainBottom,
  pad,
  tone,
  meetLimits,
  lift,
  shelf,
  coils,
  bank,
  voiceCascade,
  voiceLadder,
  voiceStateVariable,
  voiceGate,
  voiceBox,
  voiceTreadle,
  voiceSteep,
  transistorStage,
  twoWays,
  twoWaysActive,
  threeWays,
  threeWaysActive,
  trace,
];

/** The list, those of one person together. */
export const JOBS: readonly Job[] = (Object.keys(PEOPLE) as (keyof typeof PEOPLE)[]).flatMap(
  (who) => ALL.filter((job) => job.who === who),
);
