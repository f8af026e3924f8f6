import type { StageFigures } from '@/core/topologies/topology';
import type { Channel } from '@/core/sheet/bank-schema';
import type { Way } from '@/core/sheet/schema';
import { designedAs, valuesOf } from '@/core/sheet/stage';
import { knownKey, workedOut } from './bank';
import type { BankPicture } from './picture';

/** A part of a partly known channel that was worked out from its centre and the known ones. */
export interface Recovered {
  key: string;
  /** Counted from 0. */
  stage: number;
  part: string;
  /** What it must be, exactly. */
  value: number;
  /** What the drawing says of it, and where its trimmer stands then: beyond 0 to 1 it does not reach. */
  marked?: { value: number; trimmer?: number; turn?: number };
}

/**
 * The missing parts of a channel, each beside what is marked on the drawing; none where nothing of
 * their stage is known.
 *
 * @throws ReedError `design` where the known parts leave no answer
 */
export function recoveredParts(channel: Channel, way: Way): Recovered[] {
  if (Object.keys(channel.known).length === 0) return [];
  const { exact } = workedOut(channel, way);
  return way.stages.flatMap((stage, n) => {
    const parts = Object.keys(valuesOf(stage));
    if (!parts.some((part) => knownKey(n, part) in channel.known)) return [];
    return parts.flatMap((part): Recovered[] => {
      const key = knownKey(n, part);
      if (key in channel.known) return [];
      const value = exact[key];
      const said = channel.marked?.[key];
      if (!said) return [{ key, stage: n, part, value }];
      const { value: fixed, trimmer } = said;
      const turn = trimmer === undefined ? undefined : (value - fixed) / trimmer;
      const marked = { value: fixed, ...(trimmer === undefined ? {} : { trimmer, turn }) };
      return [{ key, stage: n, part, value, marked }];
    });
  });
}

/** What the stages of a channel really have, by the values they are built of. */
export const builtFigures = (way: Way): (StageFigures | undefined)[] =>
  way.stages.map((stage) => {
    const topology = designedAs(stage);
    return topology && !stage.drawing ? topology.figures(valuesOf(stage)) : undefined;
  });

/** How a level drifts from channel to channel, and in which stage. */
export interface LevelDrift {
  /** From the least to the greatest level at the centres, dB. */
  wholeDb: number;
  /** By stage: how far apart the channels are in what it does at the centre, dB. */
  stagesDb: number[];
  /** The stage, counted from 0, in which most of it arises, and the channel furthest from the middle there. */
  stage: number;
  channel: number;
  offDb: number;
}

/** Nothing where channels differ in their number of stages, or there is but one. */
export function levelDrift({ channels }: Pick<BankPicture, 'channels'>): LevelDrift | undefined {
  const count = channels[0]?.budgetDb.length ?? 0;
  if (channels.length < 2 || count === 0 || channels.some((c) => c.budgetDb.length !== count))
    return undefined;
  const gains = Array.from({ length: count }, (_, n) =>
    channels.map(({ budgetDb }) => budgetDb[n] - (n === 0 ? 0 : budgetDb[n - 1])),
  );
  const spans = gains.map(spanOf);
  const stage = spans.indexOf(Math.max(...spans));
  const middle = [...gains[stage]].sort((a, b) => a - b)[gains[stage].length >> 1];
  const off = gains[stage].map((g) => g - middle);
  const furthest = off.map((o) => Math.abs(o));
  const channel = furthest.indexOf(Math.max(...furthest));
  return {
    wholeDb: spanOf(channels.map((c) => c.budgetDb[count - 1])),
    stagesDb: spans,
    stage,
    channel,
    offDb: off[channel],
  };
}

const spanOf = (values: readonly number[]): number => Math.max(...values) - Math.min(...values);
