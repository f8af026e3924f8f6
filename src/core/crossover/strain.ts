import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import type { SolvedSpeaker } from '@/core/speaker/solved-speaker';
import { evenly } from '@/core/speaker/tune/measure';
import { unitAt } from '@/core/speaker/unit-response';
import { musicShare, partLoads, type PartLoad } from './load';
import { unitOhms } from './loads';
import { isActive } from './active';
import { drawnNames } from './network-drawing';
import { solveCrossover } from './solve';
import { driverEnd, isCrossover, type CrossoverDesign } from './crossover-design';

/** What a driver bears at the stated drive. */
export interface DriverStrain {
  way: string;
  name: string;
  /** Highest voltage across it of a sine anywhere in the band, rms. */
  volts: number;
  voltsAtHz: number;
  /** Most power that it takes of a sine, and of music-like noise of the same rms. */
  sineWatts: number;
  sineAtHz: number;
  musicWatts: number;
  /** What it is rated at, where that is known. */
  ratedWatts?: number;
  /** Peak movement of the cone of a sine, millimetres one way; of units whose figures are known. */
  millimetres?: Float64Array;
  mostMillimetres?: number;
  mostAtHz?: number;
  /** How far it moves within its linear range, where that is known. */
  ratedMillimetres?: number;
}

export interface StrainPicture {
  frequenciesHz: Float64Array;
  drivers: DriverStrain[];
  /** Parts behind the amplifier, by what they are called in the drawing; none at line level. */
  parts: PartLoad[];
  problem: string | null;
}

const POINTS = 181;

/** What every driver and part bears at the level that a crossover is looked at for heat. */
export function strainPicture(sheet: Sheet): StrainPicture {
  const frequenciesHz = evenly(20, 20_000, POINTS);
  const none: StrainPicture = { frequenciesHz, drivers: [], parts: [], problem: null };
  if (!isCrossover(sheet)) return none;
  try {
    const speaker = solveCrossover(sheet, 'true', `${sheet.id} strain`);
    const names = drawnNames(sheet);
    return {
      ...none,
      drivers: driverStrains(sheet, speaker, frequenciesHz),
      parts: sheet.ways.some(isActive)
        ? []
        : partLoads(speaker, sheet.crossover.loudVolts).flatMap((load) => {
            const name = names.get(load.id);
            return name === undefined ? [] : [{ ...load, id: name }];
          }),
    };
  } catch (error) {
    return { ...none, problem: messageOf(error) };
  }
}

/**
 * Power into a unit is |V|^2 Re(1/Z); its cone moves by v/(j w), with v as its figures have it.
 */
export function driverStrains(
  design: CrossoverDesign,
  speaker: SolvedSpeaker,
  hz: Float64Array,
): DriverStrain[] {
  const electrical = speaker.electrical(hz);
  const share = musicShare(hz);
  return design.ways.map((way, i) => {
    const unit = speaker.units[i];
    const { name, powerWatts, xmaxMillimetres } = speaker.document.drivers[i];
    const z = unitOhms(speaker.document.drivers[i], unit, hz);
    const across = electrical.across[i];
    const volts = across.re.map(
      (re, k) => design.crossover.loudVolts * Math.hypot(re, across.im[k]),
    );
    const watts = volts.map((v, k) => (v * v * z.re[k]) / (z.re[k] ** 2 + z.im[k] ** 2));
    const [loudest, hottest] = [mostPlace(volts), mostPlace(watts)];
    const { figures } = unit;
    const millimetres =
      figures &&
      volts.map((v, k) => {
        const { velocity } = unitAt(figures, hz[k]);
        const w = 2 * Math.PI * hz[k];
        return (1000 * Math.SQRT2 * v * Math.hypot(velocity.re, velocity.im)) / w;
      });
    const far = millimetres && mostPlace(millimetres);
    return {
      way: way.id,
      name: name || driverEnd(way).name,
      volts: volts[loudest],
      voltsAtHz: hz[loudest],
      sineWatts: watts[hottest],
      sineAtHz: hz[hottest],
      musicWatts: watts.reduce((sum, w, k) => sum + w * share[k], 0),
      ...(powerWatts === undefined ? {} : { ratedWatts: powerWatts }),
      ...(millimetres && far !== undefined
        ? { millimetres, mostMillimetres: millimetres[far], mostAtHz: hz[far] }
        : {}),
      ...(xmaxMillimetres === undefined ? {} : { ratedMillimetres: xmaxMillimetres }),
    };
  });
}

const mostPlace = (values: Float64Array): number =>
  values.reduce((most, v, k) => (v > values[most] ? k : most), 0);
