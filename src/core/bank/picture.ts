import { AcAnalysis } from '@/core/analysis/ac/ac';
import { ReedError } from '@/core/errors';
import { explored } from '@/core/response/landmarks';
import { ResponseReader } from '@/core/response/reader';
import { levelDb, levelsDb, responseOf } from '@/core/response/response';
import { findZero } from '@/core/numeric/root';
import { pathLandmarks } from '@/core/sheet/landmarks';
import { outNet, portNet } from '@/core/sheet/nets';
import { placedWays } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import type { Bank } from '@/core/sheet/bank-schema';
import { channelBands } from './widths';

export interface ChannelPicture {
  id: string;
  levelDb: Float64Array;
  /** Level at the asked centre behind each stage, dB re the source. */
  budgetDb: number[];
  /** Where the built channel really peaks, and how high. */
  peakHz: number;
  peakDb: number;
  /** Between half-power points: asked, and of the built channel about its peak (null without them). */
  widthHz: number;
  builtWidthHz: number | null;
  /** Where it meets the next higher channel, and how far that is under its own peak; null if never. */
  meetsNext: { hz: number; downDb: number } | null;
}

export interface BankPicture {
  frequenciesHz: Float64Array;
  channels: ChannelPicture[];
  /** All channels added, every other one inverted where the bank says so. */
  sumDb: Float64Array;
}

/** Even points a decade; between them the grid closes in on every stage. */
const PER_DECADE = 80;
/** Drawn, and searched, this far beyond the outer centres. */
const DRAWN = 3;
const SEARCHED = 100;

/** All channels of a bank, their sum, and where the level goes in each. */
export async function bankPicture(
  sheet: Sheet,
  pause: () => Promise<void> = () => Promise.resolve(),
): Promise<BankPicture> {
  const { bank } = sheet;
  if (!bank) throw new ReedError('document', 'This sheet is no bank.');
  const bands = channelBands(bank);
  const centres = bank.channels.map((c) => c.centreHz);
  const [least, most] = [Math.min(...centres), Math.max(...centres)];
  const landmarks = sheet.ways.map((way) => pathLandmarks(way, 'built'));
  const frequenciesHz = explored(
    { fromHz: least / DRAWN, toHz: most * DRAWN },
    landmarks.flat(),
    PER_DECADE,
  );
  const count = frequenciesHz.length;
  const sum = { re: new Float64Array(count), im: new Float64Array(count) };
  const ranks = ranksOf(bank);
  const found: Found[] = [];
  // All channels are one circuit: what they share is shared, and what they do not share costs nothing.
  const analysis = new AcAnalysis(placedWays(sheet, [...sheet.ways.keys()], 'built').circuit);
  for (const [i, channel] of bank.channels.entries()) {
    await pause();
    const { to } = sheet.ways[i];
    const gain = to.is === 'mix' ? to.gain : 0;
    const out = outNet(sheet, i);
    const { re, im } = analysis.voltage(out, frequenciesHz);
    for (let k = 0; k < count; k++) {
      sum.re[k] += gain * re[k];
      sum.im[k] += gain * im[k];
    }
    const reader = new ResponseReader(responseOf(analysis, out), {
      span: { fromHz: least / SEARCHED, toHz: most * SEARCHED },
      landmarks: landmarks[i],
    });
    found.push({
      reader,
      rank: ranks.get(channel.id)!,
      picture: {
        id: channel.id,
        levelDb: levelsDb({ re, im }),
        budgetDb: budgetOf(analysis, sheet, i, channel.centreHz),
        widthHz: bands[i].widthHz,
        ...peakOf(reader),
        meetsNext: null,
      },
    });
  }
  meetings(found);
  return { frequenciesHz, channels: found.map((f) => f.picture), sumDb: levelsDb(sum) };
}

interface Found {
  reader: ResponseReader;
  rank: number;
  picture: ChannelPicture;
}

const ranksOf = ({ channels }: Bank) =>
  new Map([...channels].sort((a, b) => a.centreHz - b.centreHz).map((c, n) => [c.id, n]));

function budgetOf(analysis: AcAnalysis, sheet: Sheet, way: number, centreHz: number): number[] {
  const nets = sheet.ways[way].stages.flatMap((s) => portNet(sheet, way, s.id) ?? []);
  const { probes } = analysis.solve({ frequenciesHz: [centreHz], probes: nets });
  return nets.map((net) => levelDb(probes[net].re[0], probes[net].im[0]));
}

/** The built channel's own peak and width, searched on its response. */
function peakOf(
  reader: ResponseReader,
): Pick<ChannelPicture, 'peakHz' | 'peakDb' | 'builtWidthHz'> {
  const { hz, value } = reader.highest();
  let builtWidthHz: number | null = null;
  try {
    const { fromHz, toHz } = reader.halfPowerBand();
    builtWidthHz = toHz - fromHz;
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
  }
  return { peakHz: hz, peakDb: value, builtWidthHz };
}

/** Where neighbours have the same level, between their peaks. */
function meetings(found: readonly Found[]): void {
  const sorted = [...found].sort((a, b) => a.rank - b.rank);
  sorted.slice(0, -1).forEach((own, k) => {
    const next = sorted[k + 1];
    const over = (u: number) => own.reader.levelAt(Math.exp(u)) - next.reader.levelAt(Math.exp(u));
    const [a, b] = [Math.log(own.picture.peakHz), Math.log(next.picture.peakHz)];
    if (!(a < b) || over(a) <= 0 || over(b) >= 0) return;
    const hz = Math.exp(findZero(over, a, b, 1e-10));
    own.picture.meetsNext = { hz, downDb: own.picture.peakDb - own.reader.levelAt(hz) };
  });
}
