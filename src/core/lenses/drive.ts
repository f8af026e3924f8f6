import { AcAnalysis } from '@/core/analysis/ac/ac';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { ReedError } from '@/core/errors';
import { along } from '@/core/numeric/along';
import { turnedTo } from '@/core/sheet/knobs/travel';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { songOf, type Song } from '@/core/synth/song';
import { partialsOf, SteadyRun } from '@/core/synth/steady';
import { filterFigures } from '@/core/synth/tune';
import { aroundView } from './control';
import { withoutPause, type Pause } from './layers';
import { singingLens } from './singing';

export interface DriveRequest {
  /** Of the sine that goes in; nothing for a third of the cut-off, where its first harmonics still pass. */
  hz: number | null;
}

/** One setting of the resonance, over the level of the source. */
export interface DriveCourse {
  /** Where the resonance stands, 0 to 1; null without one. */
  at: number | null;
  /** Harmonics over the fundamental, at each level; NaN where it did not settle. */
  thd: Float64Array;
  /** Peak volts of the fundamental at the output. */
  volts: Float64Array;
  /** Peak volts of the first harmonics at each level. */
  partials: Float64Array[];
}

export interface DrivePicture {
  hz: number;
  /** Peak volts of the source, rising. */
  levels: Float64Array;
  /** As it stands first, then other settings of its resonance. */
  courses: DriveCourse[];
  /** Peak volts of the source from which it distorts by one and by ten parts of a hundred, as it stands. */
  onePart: number | null;
  tenParts: number | null;
  /** At the top of its resonance, or as it stands where that sings: what it sings, without a source. */
  song: (Song & { at: number | null }) | null;
  /** Why nothing of that is known. */
  whyNoSong: string | null;
}

const LEVELS = 13;
/** The source’s own level and so many times less and more. */
const SPAN = { below: 100, above: 10 };
const PARTIALS = 7;
/** Parts of where it begins to sing at which it is looked at. */
const NEARLY = 0.9;

/**
 * What a level does to the built path: distortion, saturation, and what it sings. Each point is the bent
 * circuit over time until it repeats.
 */
export async function driveLens(
  sheet: Sheet,
  { hz: asked }: DriveRequest,
  pause: Pause = withoutPause,
): Promise<DrivePicture> {
  const hz = asked ?? usualHz(sheet);
  const { volts } = sheet.source;
  const levels = Float64Array.from({ length: LEVELS }, (_, k) =>
    along(volts / SPAN.below, volts * SPAN.above, k / (LEVELS - 1), true),
  );
  const resonance = sheet.controls.find((c) => c.for === 'resonance');
  const threshold = resonance
    ? (await singingLens(sheet, { control: resonance.id }, pause)).at
    : null;
  const places: (number | null)[] = resonance
    ? [...new Set([resonance.at, 0, ...(threshold === null ? [] : [NEARLY * threshold])])]
    : [null];
  const courses: DriveCourse[] = [];
  for (const at of places) {
    const set = at === null || !resonance ? sheet : turnedTo(sheet, resonance.id, at);
    courses.push({ at, ...(await courseOf(set, hz, levels, pause)) });
  }
  const [here] = courses;
  return {
    hz,
    levels,
    courses,
    onePart: levelFor(levels, here.thd, 0.01),
    tenParts: levelFor(levels, here.thd, 0.1),
    ...songAt(
      sheet,
      resonance && { id: resonance.id, at: Math.max(resonance.at, threshold === null ? 0 : 1) },
    ),
  };
}

function usualHz(sheet: Sheet): number {
  const analysis = new AcAnalysis(pathCircuit(sheet, 0, 'built'));
  const { halfPowerHz, pairHz, peakHz } = filterFigures(
    analysis,
    outNet(sheet),
    aroundView(sheet.view),
  );
  const cutOff = pairHz ?? halfPowerHz ?? peakHz ?? 1000;
  return Number((cutOff / 3).toPrecision(2));
}

async function courseOf(
  sheet: Sheet,
  hz: number,
  levels: Float64Array,
  pause: Pause,
): Promise<Omit<DriveCourse, 'at'>> {
  const circuit = pathCircuit(sheet, 0, 'built');
  const run = new SteadyRun(circuit, UNIT_SOURCE.id, outNet(sheet), hz);
  const course = {
    thd: new Float64Array(levels.length).fill(NaN),
    volts: new Float64Array(levels.length).fill(NaN),
    partials: Array.from(levels, () => new Float64Array(PARTIALS).fill(NaN)),
  };
  for (const [k, volts] of levels.entries()) {
    await pause();
    try {
      const cycle = run.cycle({ wave: 'sine', volts });
      if (!cycle.repeats) continue;
      const { amplitude, thd } = partialsOf(cycle.volts, PARTIALS);
      course.thd[k] = thd;
      course.volts[k] = amplitude[0];
      course.partials[k].set(amplitude);
    } catch (error) {
      // Driven beyond what it can follow that level has no figure, as where it sings by itself.
      if (!(error instanceof ReedError)) throw error;
    }
  }
  return course;
}

/** The level at which a distortion is reached for good, between two that were worked out. */
function levelFor(levels: Float64Array, thd: Float64Array, part: number): number | null {
  for (let k = levels.length - 1; k > 0; k--) {
    if (!(thd[k] >= part) || !(thd[k - 1] < part)) continue;
    const u = Math.log(part / thd[k - 1]) / Math.log(thd[k] / thd[k - 1]);
    return along(levels[k - 1], levels[k], u, true);
  }
  return null;
}

function songAt(
  sheet: Sheet,
  resonance: { id: string; at: number } | undefined,
): Pick<DrivePicture, 'song' | 'whyNoSong'> {
  const set = resonance ? turnedTo(sheet, resonance.id, resonance.at) : sheet;
  try {
    const song = songOf(pathCircuit(set, 0, 'built'), outNet(sheet), UNIT_SOURCE.id);
    if (song) return { song: { ...song, at: resonance?.at ?? null }, whyNoSong: null };
    return {
      song: null,
      whyNoSong: resonance
        ? 'It does not sing anywhere on the travel of its resonance.'
        : 'It does not sing by itself.',
    };
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    return { song: null, whyNoSong: error.message };
  }
}
