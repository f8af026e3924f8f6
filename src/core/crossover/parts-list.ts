import { messageOf } from '@/core/errors';
import { partsList, type KnownOfParts, type PartsList, type Stress } from '@/core/sheet/parts-list';
import type { Sheet } from '@/core/sheet/schema';
import { hasAmplifiers } from './active';
import { fairPrice } from './board/tiers';
import { isCrossover, type CrossoverDesign } from './crossover-design';
import { partLoads } from './load';
import { drawnNames } from './network-drawing';
import { solveCrossover } from './solve';

/**
 * What one channel of a sheet is built of. The parts of a crossover have to stand what the true
 * drivers make of its loud level: of resistors the heat of music, of all the peaks of a sine.
 */
export function channelParts(sheet: Sheet): PartsList {
  return isCrossover(sheet) ? partsList(sheet, knownOf(sheet)) : partsList(sheet);
}

function knownOf(sheet: Sheet & CrossoverDesign): KnownOfParts {
  const names = drawnNames(sheet);
  // Behind an amplifier parts are large ones.
  const priceOf = hasAmplifiers(sheet) ? undefined : fairPrice;
  try {
    const speaker = solveCrossover(sheet, 'true', `${sheet.id} parts`);
    const loads = partLoads(speaker, sheet.crossover.loudVolts);
    const stresses = loads.map(({ id, kind, volts, musicWatts }): [string, Stress] => [
      id,
      { peakVolts: Math.SQRT2 * volts, ...(kind === 'resistor' ? { watts: musicWatts } : {}) },
    ]);
    return { names, priceOf, stresses: new Map(stresses) };
  } catch (error) {
    return { names, priceOf, stresses: new Map(), problems: [messageOf(error)] };
  }
}
