import { AcAnalysis } from '@/core/analysis/ac/ac';
import { noiseDensity, noiseOf } from '@/core/analysis/noise/noise';
import { spaced } from '@/core/response/landmarks';
import { levelsDb } from '@/core/response/response';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import type { CurvesOfBoards } from './boards';
import { withoutPause, type Pause } from './layers';

/** What hisses at the end of the built path. */
export interface NoisePicture {
  frequenciesHz: Float64Array;
  /** At the output, and divided by the gain from the source: volts a root hertz. */
  outputDensity: Float64Array;
  inputDensity: Float64Array;
  /** Over what is heard, 20 Hz to 20 kHz: flat and A-weighted, volts r.m.s. */
  rmsVolts: number;
  rmsVoltsA: number;
  /** Parts by what they add to the flat total, largest first. */
  parts: { part: string; rmsVolts: number; share: number }[];
  /** The largest signal at the output, at the source's level. */
  signalVolts: number;
  /** How far the noise lies under it, dB. */
  rangeDb: number;
  rangeDbA: number;
}

const HEARD = { fromHz: 20, toHz: 20_000 };
const POINTS = 72;

/** Noise at the end of the built path: its density, its totals, and who makes it. */
export async function noiseLens(sheet: Sheet, pause: Pause = withoutPause): Promise<NoisePicture> {
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = spaced(fromHz, toHz, POINTS);
  const probe = outNet(sheet);
  const analysis = new AcAnalysis(pathCircuit(sheet, 0, 'built'));
  await pause();
  const found = noiseOf(analysis, { probe, frequenciesHz, ...HEARD, settled: 1e-5 });
  await pause();
  const level = levelsDb(analysis.voltage(probe, frequenciesHz));
  const signalVolts = sheet.source.volts * 10 ** (Math.max(...level) / 20);
  const sums = new Map<string, number>();
  for (const { part, rmsVolts } of found.contributions)
    sums.set(part, (sums.get(part) ?? 0) + rmsVolts ** 2);
  const under = (volts: number) => 20 * Math.log10(signalVolts / volts);
  return {
    frequenciesHz,
    outputDensity: Float64Array.from(found.spots, (s) => s.voltsPerRootHz),
    inputDensity: Float64Array.from(found.spots, (s) => s.inputVoltsPerRootHz ?? NaN),
    rmsVolts: found.rmsVolts,
    rmsVoltsA: found.rmsVoltsA,
    parts: [...sums]
      .map(([part, square]) => ({
        part,
        rmsVolts: Math.sqrt(square),
        share: found.rmsVolts > 0 ? square / found.rmsVolts ** 2 : 0,
      }))
      .sort((a, b) => b.share - a.share),
    signalVolts,
    rangeDb: under(found.rmsVolts),
    rangeDbA: under(found.rmsVoltsA),
  };
}

/** The densities of boards. */
export const noiseOfBoards: CurvesOfBoards = (sheet) => {
  const hz = spaced(sheet.view.fromHz, sheet.view.toHz, POINTS);
  const probe = outNet(sheet);
  return {
    places: { output: hz, input: hz },
    read: ({ analysis }) => noiseDensity(analysis, probe, hz),
  };
};
