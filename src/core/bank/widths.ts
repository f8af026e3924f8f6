import { ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import { lastCrossing, lowPassPrototype } from '@/core/response/prototypes';
import type { Bank, Channel } from '@/core/sheet/bank-schema';

/** Where a channel has its middle, and how wide it is between its half-power points. */
export interface ChannelBand {
  centreHz: number;
  widthHz: number;
}

/** Crossings may lie no closer to a centre than this part of the way to the next, or bands get too narrow. */
const LEAST_SHARE = 0.25;

/**
 * The band of every channel: of its own width, or such that it crosses its neighbours `overlapDb`
 * down. A channel's curve is symmetrical about its middle on the log axis, so where one crossing
 * lies decides where all the next lie; it is chosen so that they lie as near as can be half way. Where
 * centres are spaced so unevenly that they would come too close to a centre, crossings are put half
 * way and channels between them have their middles a little beside the asked centres.
 *
 * @returns in the order of the channels
 * @throws ReedError `design` for two channels of one centre without widths of their own
 */
export function channelBands({ channels, overlapDb }: Bank): ChannelBand[] {
  const bands = new Map<string, ChannelBand>();
  const sorted = [...channels].sort((a, b) => a.centreHz - b.centreHz);
  for (const chain of chainsOf(sorted)) {
    if (chain.length === 1) bands.set(chain[0].id, alone(chain[0], sorted, overlapDb));
    else {
      const edges = edgesOf(chain.map((c) => Math.log(c.centreHz)));
      chain.forEach((channel, i) =>
        bands.set(channel.id, bandBetween(channel, edges[i], overlapDb)),
      );
    }
  }
  return channels.map((c) =>
    c.widthHz === undefined ? bands.get(c.id)! : { centreHz: c.centreHz, widthHz: c.widthHz },
  );
}

/** Runs of neighbours whose widths follow from each other. */
function chainsOf(sorted: readonly Channel[]): Channel[][] {
  const chains: Channel[][] = [[]];
  sorted.forEach((channel, i) => {
    if (channel.widthHz !== undefined) chains.push([]);
    else {
      const before = sorted[i - 1];
      if (before && before.widthHz === undefined && before.centreHz === channel.centreHz)
        throw new ReedError(
          'design',
          `Two channels have their centre at ${inWords(channel.centreHz, 'hertz')}: move one, or give it a width of its own.`,
        );
      chains[chains.length - 1].push(channel);
    }
  });
  return chains.filter((c) => c.length > 0);
}

/** How far out a channel is down by the overlap, in half-power half-widths of its prototype. */
function reach({ stages }: Channel, overlapDb: number): number {
  const prototype = lowPassPrototype({ shape: 'butterworth', order: stages });
  return lastCrossing(prototype, 10 ** (-overlapDb / 20));
}

/** A channel between neighbours of their own widths: half way to each, on the average. */
function alone(channel: Channel, sorted: readonly Channel[], overlapDb: number): ChannelBand {
  const { centreHz } = channel;
  const at = sorted.indexOf(channel);
  const neighbours = [sorted[at - 1], sorted[at + 1]].filter((n) => n !== undefined);
  if (neighbours.length === 0) return { centreHz, widthHz: centreHz };
  const away = neighbours.map((n) => {
    const cross = Math.sqrt(centreHz * n.centreHz);
    return Math.abs(cross - centreHz ** 2 / cross);
  });
  const width = away.reduce((a, b) => a + b) / away.length;
  return { centreHz, widthHz: width / reach(channel, overlapDb) };
}

type Edges = readonly [lower: number, upper: number];

/** Lower and upper crossing of every channel of a chain, as logarithms like its centres. */
function edgesOf(centres: readonly number[]): Edges[] {
  const gaps = centres.slice(1).map((c, k) => c - centres[k]);
  // The least share of a gap that lies between a crossing and the centres about it.
  const share = (first: number) => {
    let cross = first;
    return gaps.reduce((least, gap, k) => {
      const part = (cross - centres[k]) / gap;
      cross = 2 * centres[k + 1] - cross;
      return Math.min(least, part, 1 - part);
    }, Infinity);
  };
  // A minimum of straight lines has one summit.
  let [low, high] = [centres[0], centres[1]];
  for (let round = 0; round < 100; round++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (share(a) < share(b)) low = a;
    else high = b;
  }
  const first = (low + high) / 2;
  const crossings: number[] = [];
  if (share(first) >= LEAST_SHARE)
    for (let k = 0, cross = first; k < gaps.length; k++, cross = 2 * centres[k] - cross)
      crossings.push(cross);
  else gaps.forEach((gap, k) => crossings.push(centres[k] + gap / 2));
  return centres.map((c, k) => [
    k === 0 ? 2 * c - crossings[0] : crossings[k - 1],
    k === gaps.length ? 2 * c - crossings[k - 1] : crossings[k],
  ]);
}

function bandBetween(channel: Channel, [lower, upper]: Edges, overlapDb: number): ChannelBand {
  const middle = Math.exp((lower + upper) / 2);
  // Rounding apart, it is the centre that was asked.
  const centreHz = Math.abs(middle / channel.centreHz - 1) < 1e-9 ? channel.centreHz : middle;
  return {
    centreHz,
    widthHz: (Math.exp(upper) - Math.exp(lower)) / reach(channel, overlapDb),
  };
}
