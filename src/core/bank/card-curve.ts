import { AcAnalysis } from '@/core/analysis/ac/ac';
import { bankPicture } from '@/core/bank/picture';
import { spaced } from '@/core/response/landmarks';
import { levelsDb } from '@/core/response/response';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';

export interface SmallCurve {
  frequenciesHz: Float32Array;
  levelDb: Float32Array;
}

const POINTS = 96;

/** The curve by which the shelf shows a sheet: its built path, or the sum of a bank's channels. */
export async function cardCurve(sheet: Sheet): Promise<SmallCurve> {
  if (sheet.bank) {
    const { frequenciesHz, sumDb } = await bankPicture(sheet);
    return { frequenciesHz: Float32Array.from(frequenciesHz), levelDb: Float32Array.from(sumDb) };
  }
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = spaced(fromHz, toHz, POINTS);
  const analysis = new AcAnalysis(pathCircuit(sheet, 0, 'built'));
  return {
    frequenciesHz: Float32Array.from(frequenciesHz),
    levelDb: Float32Array.from(levelsDb(analysis.voltage('out', frequenciesHz))),
  };
}
