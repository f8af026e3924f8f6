import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { Successive } from '@/core/analysis/ac/successive';
import { polesAndZeros, type RootFigures } from '@/core/analysis/poles/poles';
import { TAPERS } from '@/core/circuit/devices/potentiometer';
import { ReedError } from '@/core/errors';
import { taperOf } from '@/core/parts/kinds/potentiometer';
import { explored } from '@/core/response/landmarks';
import { quantityOfMeasure } from '@/core/response/readings';
import { levelsDb } from '@/core/response/response';
import { evennessOf, type Evenness } from '@/core/sheet/knobs/evenness';
import type { Taper } from '@/core/sheet/knobs/make-knob';
import { controlOf, ohmsAt, tracksOf, turnedTo, withTaper } from '@/core/sheet/knobs/travel';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import { readingsReader } from '@/core/sheet/read-readings';
import { readerOptions } from '@/core/sheet/reader-options';
import type { Control, Sheet } from '@/core/sheet/schema';
import { withoutPause, type Pause } from './layers';

export interface TravelRequest {
  /** The control that is turned. */
  control: string;
}

/** The built path with a control at one place. */
export interface TravelRow {
  at: number;
  levelDb: Float64Array;
  /** Of the first track it turns, ohms from its first end to the wiper. */
  ohms: number | null;
  /** Of the poles that the control moves the sharpest pair, or the slowest where none is a pair. */
  pole: { f0Hz: number; q: number | null } | null;
  /** The highest level that is shown, dB. */
  highestDb: number;
  /** By the reading's id; NaN where it has no value. */
  readings: Record<string, number>;
}

/** How a reading would move with each taper. */
export interface TaperChoice {
  taper: Taper;
  evenness: Evenness;
}

export interface TravelPicture {
  control: string;
  frequenciesHz: Float64Array;
  rows: TravelRow[];
  /** The taper that the tracks have; nothing for a control that turns none. */
  taper: Taper | null;
  /** By the reading's id, the most even first. */
  tapers: Record<string, TaperChoice[]>;
}

/** Places that are drawn and listed, and steps by which evenness is judged. */
const PLACES = 11;
const STEPS = 16;
const PER_DECADE = 20;

/**
 * A control over its whole travel: the curves, and where its pole, its height and its readings go;
 * and which taper would move each reading most evenly.
 *
 * @throws ReedError `range` for a control that is not there, or as solving the path
 */
export async function travelLens(
  sheet: Sheet,
  { control: id }: TravelRequest,
  pause: Pause = withoutPause,
): Promise<TravelPicture> {
  const control = controlOf(sheet, id);
  if (!control) throw new ReedError('range', 'The knob is gone: choose another.');
  const options = readerOptions(sheet, 0);
  const frequenciesHz = explored(sheet.view, options.landmarks ?? [], PER_DECADE);
  const path = new TurnedPath();
  const readAll = byId(sheet);
  const rows: Omit<TravelRow, 'pole'>[] = [];
  const poles: RootFigures[][] = [];
  for (let k = 0; k < PLACES; k++) {
    await pause();
    const at = k / (PLACES - 1);
    const turned = turnedTo(sheet, id, at);
    const analysis = path.of(turned);
    const levelDb = levelsDb(analysis.voltage(outNet(sheet), frequenciesHz));
    rows.push({
      at,
      levelDb,
      ohms: ohmsAt(sheet, control, at),
      highestDb: levelDb.reduce((most, db) => Math.max(most, db), -Infinity),
      readings: readAll(analysis),
    });
    poles.push(polesAround(turned));
  }
  const moved = movedPoles(poles);
  const [track] = tracksOf(sheet, control);
  const taper = track ? taperOf(track.stage.parts[track.part].model?.model) : null;
  return {
    control: id,
    frequenciesHz,
    rows: rows.map((row, k) => ({ ...row, pole: moved[k] })),
    taper,
    tapers: track ? await tapersOf(sheet, control, path, readAll, pause) : {},
  };
}

/** Solves the path of sheets that are alike but for values: each takes over the equations before it. */
class TurnedPath {
  private readonly solved = new Successive();

  of(sheet: Sheet): AcAnalysis {
    return this.solved.of(pathCircuit(sheet, 0, 'built'));
  }
}

/** Reads all readings of the sheet, by their ids: where a knob stands bears on none of how they are read. */
function byId(sheet: Sheet): (analysis: AcAnalysis) => Record<string, number> {
  const read = readingsReader(sheet, 0);
  return (analysis) => {
    const values = read(analysis);
    return Object.fromEntries(sheet.readings.map(({ id }, i) => [id, values[i]]));
  };
}

async function tapersOf(
  sheet: Sheet,
  control: Control,
  path: TurnedPath,
  readAll: ReturnType<typeof byId>,
  pause: Pause,
): Promise<Record<string, TaperChoice[]>> {
  const courses: { taper: Taper; course: Record<string, number>[] }[] = [];
  for (const taper of TAPERS) {
    await pause();
    const tapered = withTaper(sheet, control, taper);
    const course = Array.from({ length: STEPS + 1 }, (_, k) => {
      return readAll(path.of(turnedTo(tapered, control.id, k / STEPS)));
    });
    courses.push({ taper, course });
  }
  const unevenness = ({ evenness: { steepest } }: TaperChoice) => steepest ?? Infinity;
  return Object.fromEntries(
    sheet.readings.map(({ id, measure }) => [
      id,
      courses
        .map(({ taper, course }): TaperChoice => {
          const values = course.map((row) => row[id]);
          return { taper, evenness: evennessOf(values, quantityOfMeasure(measure)) };
        })
        .sort((a, b) => unevenness(a) - unevenness(b)),
    ]),
  );
}

/** Poles so far beyond what is shown are not the filter's. */
const AROUND = 10;

function polesAround(sheet: Sheet): RootFigures[] {
  const { fromHz, toHz } = sheet.view;
  const { poleFigures } = polesAndZeros(pathCircuit(sheet, 0, 'built'), outNet(sheet));
  return poleFigures.filter((p) => p.f0Hz > fromHz / AROUND && p.f0Hz < toHz * AROUND);
}

/** A pole that stays within this part of itself everywhere is not moved. */
const STAYS = 1e-3;

/** Of every place the pole that tells what the control does. */
function movedPoles(places: readonly RootFigures[][]): TravelRow['pole'][] {
  const stays = (pole: RootFigures) =>
    places.every((others) =>
      others.some(
        ({ f0Hz, q }) =>
          Math.abs(f0Hz / pole.f0Hz - 1) < STAYS &&
          Math.abs((q ?? 0.5) / (pole.q ?? 0.5) - 1) < STAYS,
      ),
    );
  return places.map((poles) => {
    const moved = poles.filter((p) => !stays(p));
    const pairs = moved.filter((p) => p.q !== null);
    if (pairs.length > 0) return pairs.reduce((a, b) => (b.q! > a.q! ? b : a));
    return moved.length > 0 ? moved.reduce((a, b) => (b.f0Hz < a.f0Hz ? b : a)) : null;
  });
}
