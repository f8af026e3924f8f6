import { designAsk } from '@/core/design/design';
import type { Ask } from '@/core/design/ask';
import { valuesWithKnown, type MissedFigure, type SolvedStage } from '@/core/design/with-known';
import { messageOf, ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import { startOf } from '@/core/sheet/exact';
import { realValues } from '@/core/sheet/real-values';
import { makeStage } from '@/core/sheet/make';
import type { PartChoices, Stage, Way, WayEnd } from '@/core/sheet/schema';
import { asDesigned, partsOf, valuesOf } from '@/core/sheet/stage';
import type { Values } from '@/core/topologies/topology';
import type { Bank, Channel } from '@/core/sheet/bank-schema';
import { channelBands, type ChannelBand } from './widths';

/*
 * A bank is a sheet whose paths are channels: each one to four band-pass stages, staggered as the
 * poles of a flat band-pass are, so that together they have a flat top and steeper sides.
 */

/** Key of a part among a channel's known ones. */
export const knownKey = (stage: number, part: string): string => `${stage + 1}/${part}`;

/** The ask that a channel is designed by. */
export function channelAsk(channel: Channel, { centreHz, widthHz }: ChannelBand): Ask {
  return {
    kind: 'band-pass',
    shape: 'butterworth',
    order: channel.stages,
    edge: 'half-power',
    centreHz,
    q: centreHz / widthHz,
    gainDb: channel.gainDb,
  };
}

/** The known parts of one stage of a channel, by the names its drawing gives them. */
function knownOf({ known }: Channel, stage: number): Values {
  const prefix = knownKey(stage, '');
  return Object.fromEntries(
    Object.entries(known).flatMap(([key, value]) =>
      key.startsWith(prefix) ? [[key.slice(prefix.length), value]] : [],
    ),
  );
}

/** A stage of a channel around its known parts, exactly. */
function solvedStage(channel: Channel, stage: Stage, n: number): SolvedStage {
  const designed = asDesigned(stage);
  // A stage that was wired otherwise since has no equations to be worked out by.
  if (!designed) return { values: valuesOf(stage), missed: [] };
  return valuesWithKnown(designed.topology, designed.target, knownOf(channel, n), startOf(stage));
}

/**
 * Every channel designed as a path. Known parts keep their values, the others are worked out around
 * them and then the nearest that can be bought.
 *
 * @throws ReedError `design` naming the channel that cannot be designed
 */
export function designBank(bank: Bank, parts: PartChoices, like: Way): Way[] {
  const bands = channelBands(bank);
  const signs = channelSigns(bank);
  return bank.channels.map((channel, i) => {
    try {
      const { stages } = designAsk(channelAsk(channel, bands[i]));
      return {
        ...like,
        id: channel.id,
        name: `${Number(channel.centreHz.toPrecision(4))} Hz`,
        to: { ...mixOf(like.to), gain: signs[i] },
        stages: stages.map(({ topology, ask, choice }, n) => {
          const stage = makeStage(`s${n + 1}`, topology, ask, parts, 'ask', choice);
          const known = knownOf(channel, n);
          if (Object.keys(known).length === 0) return stage;
          const { values } = solvedStage(channel, stage, n);
          const own = Object.entries(known).filter(([part]) => part in values);
          return {
            ...stage,
            parts: {
              ...partsOf(realValues(topology, values, parts), 'solved'),
              ...partsOf(Object.fromEntries(own), 'known'),
            },
          };
        }),
      };
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      throw new ReedError(
        'design',
        `Channel at ${inWords(channel.centreHz, 'hertz')}: ${messageOf(error)}`,
      );
    }
  });
}

/** A channel ends in the mix, by what its way ended in. */
function mixOf(to: WayEnd): Extract<WayEnd, { is: 'mix' }> {
  if (to.is === 'driver') return { is: 'mix', name: to.name, ohms: null, farads: null, gain: 1 };
  return { is: 'mix', name: to.name, ohms: to.ohms, farads: to.farads, gain: 1 };
}

/**
 * With which sign each channel enters the sum: every other one inverted, by their centres, where
 * the bank says so.
 */
export function channelSigns({ channels, alternate }: Bank): number[] {
  const sorted = [...channels].sort((a, b) => a.centreHz - b.centreHz);
  return channels.map((c) => (alternate && sorted.indexOf(c) % 2 === 1 ? -1 : 1));
}

/** A channel's parts around the known ones, if any value could be bought, and what they cannot give. */
export function workedOut(
  channel: Channel,
  way: Way,
): { exact: Record<string, number>; missed: (MissedFigure & { stage: number })[] } {
  const solved = way.stages.map((stage, n) => solvedStage(channel, stage, n));
  return {
    exact: Object.fromEntries(
      solved.flatMap(({ values }, n) =>
        Object.entries(values).map(([part, value]) => [knownKey(n, part), value]),
      ),
    ),
    missed: solved.flatMap(({ missed }, n) => missed.map((m) => ({ ...m, stage: n }))),
  };
}
