import { inWords } from '@/core/quantity/format';
import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Ask } from '@/core/design/ask';
import { designAsk } from '@/core/design/design';
import { messageOf, ReedError } from '@/core/errors';
import { levelDb, levelsDb } from '@/core/response/response';
import { lastCrossing, lowPassPrototype } from '@/core/response/prototypes';
import { exactValues, makeStage } from '@/core/sheet/make';
import { pathCircuit, stageOutNet } from '@/core/sheet/path-circuit';
import type { PartChoices, Sheet, Way } from '@/core/sheet/schema';
import type { Bank, Channel } from './schema';

/*
 * A bank is a sheet whose paths are channels: each one to four band-pass stages, staggered as the
 * poles of a flat band-pass are, so that together they have a flat top and steeper sides.
 */

/** Key of a part among a channel's known ones. */
export const knownKey = (stage: number, part: string): string => `${stage + 1}/${part}`;

/**
 * Width of every channel: its own, or what lets it cross its neighbours `overlapDb` down at the
 * geometric mean of their centres.
 *
 * @returns half-power widths in hertz, in the order of the channels
 */
export function widthsOf({ channels, overlapDb }: Bank): number[] {
  const sorted = [...channels].sort((a, b) => a.centreHz - b.centreHz);
  return channels.map((channel) => {
    if (channel.widthHz !== undefined) return channel.widthHz;
    const at = sorted.indexOf(channel);
    const neighbours = [sorted[at - 1], sorted[at + 1]].filter((n) => n !== undefined);
    if (neighbours.length === 0) return channel.centreHz;
    // |H| is down by the overlap where the prototype's frequency is `out`.
    const { sections, zeros, dcGain } = lowPassPrototype({
      shape: 'butterworth',
      order: channel.stages,
    });
    const out = lastCrossing({ sections, zeros, dcGain }, 10 ** (-overlapDb / 20));
    const away = neighbours.map((n) => {
      const cross = Math.sqrt(channel.centreHz * n.centreHz);
      return Math.abs(cross - channel.centreHz ** 2 / cross);
    });
    return away.reduce((a, b) => a + b) / away.length / out;
  });
}

/** The ask that a channel is designed by. */
export function channelAsk(channel: Channel, widthHz: number): Ask {
  return {
    kind: 'band-pass',
    shape: 'butterworth',
    order: channel.stages,
    edge: 'half-power',
    centreHz: channel.centreHz,
    q: channel.centreHz / widthHz,
    gainDb: channel.gainDb,
  };
}

/**
 * Every channel designed as a path. Known parts keep their values; the others are the nearest that
 * can be bought.
 *
 * @throws ReedError `design` naming the channel that cannot be designed
 */
export function designBank(bank: Bank, parts: PartChoices, like: Way): Way[] {
  const widths = widthsOf(bank);
  return bank.channels.map((channel, i) => {
    try {
      const { stages } = designAsk(channelAsk(channel, widths[i]));
      return {
        ...like,
        id: channel.id,
        name: `${Number(channel.centreHz.toPrecision(4))} Hz`,
        stages: stages.map(({ topology, ask, choice }, n) => {
          const stage = makeStage(`s${n + 1}`, topology, ask, parts, 'ask', choice);
          const known = Object.fromEntries(
            Object.keys(stage.values).flatMap((part) => {
              const value = channel.known[knownKey(n, part)];
              return value === undefined ? [] : [[part, value]];
            }),
          );
          return { ...stage, values: { ...stage.values, ...known } };
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

export interface BankPicture {
  frequenciesHz: Float64Array;
  channels: {
    id: string;
    levelDb: Float64Array;
    /** Level at the asked centre behind each stage, dB re the source. */
    budgetDb: number[];
    /** Where the built channel really peaks, and how high. */
    peakHz: number;
    peakDb: number;
    widthHz: number;
  }[];
  /** All channels added, every other one inverted where the bank says so. */
  sumDb: Float64Array;
}

const POINTS = 360;

/** All channels of a bank, their sum, and where the level goes in each. */
export async function bankPicture(
  sheet: Sheet,
  pause: () => Promise<void> = () => Promise.resolve(),
): Promise<BankPicture> {
  const bank = sheet.bank;
  if (!bank) throw new ReedError('document', 'This sheet is no bank.');
  const widths = widthsOf(bank);
  const centres = bank.channels.map((c) => c.centreHz);
  const [from, to] = [Math.min(...centres) / 3, Math.max(...centres) * 3];
  const frequenciesHz = Float64Array.from(
    { length: POINTS },
    (_, k) => from * (to / from) ** (k / (POINTS - 1)),
  );
  const sum = { re: new Float64Array(POINTS), im: new Float64Array(POINTS) };
  const rank = new Map(
    [...bank.channels].sort((a, b) => a.centreHz - b.centreHz).map((c, n) => [c.id, n]),
  );
  const channels: BankPicture['channels'] = [];
  for (const [i, channel] of bank.channels.entries()) {
    await pause();
    const way = sheet.ways[i];
    const sign = bank.alternate && rank.get(channel.id)! % 2 === 1 ? -1 : 1;
    const analysis = new AcAnalysis(pathCircuit(way, sheet.parts, 'built'));
    const { re, im } = analysis.solve({ frequenciesHz, probes: ['out'] }).probes.out;
    for (let k = 0; k < POINTS; k++) {
      sum.re[k] += sign * re[k];
      sum.im[k] += sign * im[k];
    }
    const nets = way.stages.filter((s) => !s.bypassed).map((s) => stageOutNet(way, s.id));
    const { probes } = analysis.solve({ frequenciesHz: [channel.centreHz], probes: nets });
    const levels = levelsDb({ re, im });
    const top = levels.reduce((best, db, k) => (db > levels[best] ? k : best), 0);
    channels.push({
      id: channel.id,
      levelDb: levels,
      budgetDb: nets.map((net) => levelDb(probes[net].re[0], probes[net].im[0])),
      peakHz: frequenciesHz[top],
      peakDb: levels[top],
      widthHz: widths[i],
    });
  }
  return { frequenciesHz, channels, sumDb: levelsDb(sum) };
}

/** The values a channel's parts would have if none were given and any could be bought. */
export function workedOut(way: Way): Record<string, number> {
  return Object.fromEntries(
    way.stages.flatMap((stage, n) =>
      Object.entries(exactValues(stage)).map(([part, value]) => [knownKey(n, part), value]),
    ),
  );
}
