import { Successive } from '@/core/analysis/ac/successive';
import { ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import { nearestPreferred, preferredNumbers, type SeriesName } from '@/core/quantity/series';
import { quantityOfMeasure } from '@/core/response/readings';
import { rootsAlong } from '@/core/solve/roots-along';
import { pathCircuit } from '../path-circuit';
import { readingsReader } from '../read-readings';
import type { Control, Sheet, Stage } from '../schema';
import { drawnParts } from '../stage';
import { inLine } from './make-knob';
import { controlOf, tracksOf } from './travel';

/** What a knob has to be so that its travel goes from one reading to another. */
export interface Stretched {
  /** What it takes at both ends of the travel, exactly. */
  fromOhms: number;
  toOhms: number;
  /** The track and the resistor in line that can be bought and reach a little further. */
  trackOhms: number;
  seriesOhms: number;
  /** Whether the track has to be turned the other way round. */
  turned: boolean;
}

const LEAST_OHMS = 1;
const MOST_OHMS = 1e8;
const PLACES = 97;

/**
 * Track and end resistor with which a knob of variable resistors moves a reading over a wanted range.
 *
 * @returns a generator that stops after every reading
 * @throws ReedError `range` where the knob is no variable resistor, or no resistance does it
 */
export function* stretchingKnob(
  sheet: Sheet,
  controlId: string,
  { reading: readingId, from, to }: NonNullable<Control['reach']>,
): Generator<void, Stretched> {
  const control = controlOf(sheet, controlId);
  const reading = sheet.readings.find((r) => r.id === readingId);
  if (!control || !reading) throw new ReedError('range', 'The knob or the reading is gone.');
  const tracks = wholeTracks(sheet, control);
  if (tracks.length === 0 || tracks.some((t) => !isVariable(t)))
    throw new ReedError(
      'range',
      'Only a knob of variable resistors can be stretched over a range; set the track and what is in line with it by hand.',
    );
  const kind = quantityOfMeasure(reading.measure);
  const readOne = readingsReader(sheet, 0, [reading]);
  const path = new Successive();
  /** By the logarithm of the resistance: both ends are looked for over the same grid. */
  const known = new Map<number, number>();
  const read = (u: number): number => {
    const found = known.get(u);
    if (found !== undefined) return found;
    const circuit = pathCircuit(withOhms(sheet, control, tracks, Math.exp(u)), 0, 'built');
    const [value] = readOne(path.of(circuit));
    known.set(u, value);
    return value;
  };
  const grid = Float64Array.from(
    { length: PLACES },
    (_, k) => Math.log(LEAST_OHMS) + (k * Math.log(MOST_OHMS / LEAST_OHMS)) / (PLACES - 1),
  );
  const { value = 10_000 } = tracks[0].stage.parts[tracks[0].part];
  const near = Math.log(value / 2);
  const solved = (want: number): number => {
    const roots = rootsAlong((u) => read(u) - want, {
      grid,
      close: 1e-6 * Math.max(Math.abs(want), kind === 'hertz' ? 0 : 1),
      fine: 1e-9,
    });
    if (roots.length === 0)
      throw new ReedError(
        'range',
        `No resistance of the knob brings the reading to ${inWords(want, kind)}: ask for a range that it passes.`,
      );
    return Math.exp(roots.reduce((a, b) => (Math.abs(b - near) < Math.abs(a - near) ? b : a)));
  };
  for (const u of grid) {
    read(u);
    yield;
  }
  const fromOhms = solved(from);
  yield;
  const toOhms = solved(to);
  const [least, most] = [Math.min(fromOhms, toOhms), Math.max(fromOhms, toOhms)];
  const seriesOhms = preferred(least, 'E12', 'below');
  return {
    fromOhms,
    toOhms,
    seriesOhms,
    trackOhms: preferred(most - seriesOhms, 'E3', 'above'),
    turned: fromOhms > toOhms,
  };
}

/** The sheet with its knob stretched, and the wish written down with it. */
export function withStretch(
  sheet: Sheet,
  controlId: string,
  reach: NonNullable<Control['reach']>,
  { trackOhms, seriesOhms, turned }: Stretched,
): Pick<Sheet, 'ways' | 'controls'> {
  const control = controlOf(sheet, controlId)!;
  const ended = seriesOhms > 0 ? withEnds(sheet, control, seriesOhms) : sheet;
  const tracks = wholeTracks(ended, control);
  const [from, to] = turned ? [1, 0] : [0, 1];
  return {
    ways: withParts(ended, tracks, trackOhms, Math.max(seriesOhms, LEAST_OHMS)).ways,
    controls: sheet.controls.map((c) =>
      c === control ? { ...c, reach, moves: c.moves.map((m) => ({ ...m, from, to })) } : c,
    ),
  };
}

/** Every track of a knob with a resistor in line, where there was none. */
function withEnds(sheet: Sheet, control: Control, ohms: number): Sheet {
  const bare = tracksOf(sheet, control).filter((t) => seriesPart(t) === undefined);
  const ended = (stage: Stage) =>
    bare
      .filter((t) => t.stage.id === stage.id)
      .reduce((s, { part }) => inLine(s, part, 'a', ohms), stage);
  const ways = sheet.ways.map((way) => ({ ...way, stages: way.stages.map(ended) }));
  return { ...sheet, ways };
}

/** What a knob turns, each with what is in line with it. */
const wholeTracks = (sheet: Sheet, control: Control): Track[] =>
  tracksOf(sheet, control).map((t) => ({ ...t, series: seriesPart(t) }));

interface Track {
  stage: Stage;
  part: string;
  /** The resistor in line with its first end, where there is one. */
  series?: string;
}

const isVariable = ({ stage, part }: Track): boolean => {
  const nets = drawnParts(stage).find((p) => p.id === part)?.nets;
  return nets !== undefined && nets.wiper === nets.b;
};

/** The resistor that nothing but the first end of a track is joined to. */
function seriesPart({ stage, part }: Pick<Track, 'stage' | 'part'>): string | undefined {
  const parts = drawnParts(stage);
  const end = parts.find((p) => p.id === part)?.nets.a;
  const joined = parts.filter((p) => p.id !== part && Object.values(p.nets).includes(end ?? ''));
  return joined.length === 1 && joined[0].kind === 'resistor' ? joined[0].id : undefined;
}

/** All tracks of a knob as one and the same plain resistance. */
function withOhms(sheet: Sheet, control: Control, tracks: readonly Track[], ohms: number): Sheet {
  // Turned all the way up, half of it in what is in line: next to nothing there would make a circuit
  // whose every solution asks for more digits than a number has.
  const changed = tracks.reduce((s, track) => {
    const share = track.series === undefined ? ohms : ohms / 2;
    return withParts(s, [track], share, share);
  }, sheet);
  const up = { ...control, at: 1, moves: control.moves.map((m) => ({ ...m, from: 1, to: 1 })) };
  return {
    ...changed,
    controls: sheet.controls.map((c) => (c.id === control.id ? up : c)),
  };
}

function withParts(
  sheet: Sheet,
  tracks: readonly Track[],
  trackOhms: number,
  seriesOhms: number,
): Sheet {
  const ways = sheet.ways.map((way) => ({
    ...way,
    stages: way.stages.map((stage) => {
      const own = tracks.filter((t) => t.stage.id === stage.id);
      if (own.length === 0) return stage;
      const parts = { ...stage.parts };
      for (const { part, series } of own) {
        parts[part] = { ...parts[part], value: trackOhms };
        if (series !== undefined) parts[series] = { ...parts[series], value: seriesOhms };
      }
      return { ...stage, parts };
    }),
  }));
  return { ...sheet, ways };
}

/** The preferred value on one side of a value. */
function preferred(value: number, series: SeriesName, side: 'above' | 'below'): number {
  if (!(value > 1)) return side === 'above' ? 1 : 0;
  const near = nearestPreferred(value, series);
  const step = 10 ** (1 / preferredNumbers(series).length);
  if (side === 'above')
    return near >= value * (1 - 1e-9) ? near : nearestPreferred(near * step, series);
  return near <= value * (1 + 1e-9) ? near : nearestPreferred(near / step, series);
}
