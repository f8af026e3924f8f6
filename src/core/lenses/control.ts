import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { Successive } from '@/core/analysis/ac/successive';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { spaced, type Band } from '@/core/response/landmarks';
import { levelsDb } from '@/core/response/response';
import { isConverted, movedTo, octavesOf, placeOf, withoutConverter } from '@/core/sheet/controls';
import { controlOf, turnedTo } from '@/core/sheet/knobs/travel';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Control, Sheet } from '@/core/sheet/schema';
import { filterFigures, type FilterFigures } from '@/core/synth/tune';
import { trimOf, type Trim } from '@/core/synth/trim';
import { warmed } from '@/core/synth/warmed';
import { withoutPause, type Pause } from './layers';
import { cellOhmsIn, hasCell, pluckOf, type Pluck } from './pluck';

export interface ControlRequest {
  /** The control that is turned. */
  control: string;
}

/** The biased filter with its control at one place. */
export interface ControlRow {
  /** Of the travel, 0 to 1. */
  at: number;
  /** Of the first thing it moves: amperes, ohms, turn. */
  moved: number;
  /** What a cell in the light of what it moves shows, ohms. */
  cellOhms: number | null;
  levelDb: Float64Array;
  figures: FilterFigures;
  /** What is called its cut-off here, see `measuredBy`. */
  hz: number | null;
}

/** The law that a control is meant to have. */
export interface ControlLaw {
  is: 'octaves' | 'proportion';
  /** Octaves a volt, where it is in octaves. */
  perVolt: number;
}

export interface ControlPicture {
  control: string;
  frequenciesHz: Float64Array;
  rows: ControlRow[];
  /** One measure for the whole travel, so that its steps are comparable. */
  measuredBy: 'pair' | 'half-power';
  /** Nothing where the device has a law of its own. */
  law: ControlLaw | null;
  /** How far each place is from the law, tuned in the middle; NaN where there is no cut-off. */
  cents: Float64Array | null;
  trim: Trim | null;
  /** What becomes of a pluck, where a lamp’s cells are slow: lit up to the top and let go. */
  pluck: Pluck | null;
  /** The same with the circuit and what drives it cold and warm, against the law at room temperature. */
  drift: { kelvin: number; cents: Float64Array }[];
}

/** Places that are solved. */
const PLACES = 25;
const POINTS = 160;
/** What a room or a stage may have: 10 °C and 40 °C. */
const ROOMS = [283.15, 313.15];
const CENTS = 1200;

/**
 * What a control does to a voltage-controlled filter: the circuit biased and solved anew at each place
 * of its travel, against the law that it is meant to have, and the same in a cold and in a hot room.
 *
 * @throws ReedError `range` for a control that is not there, or as solving the path
 */
export async function controlLens(
  sheet: Sheet,
  { control: id }: ControlRequest,
  pause: Pause = withoutPause,
): Promise<ControlPicture> {
  const control = controlOf(sheet, id);
  if (!control || control.moves.length === 0)
    throw new ReedError('range', 'The control is gone: choose another.');
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = spaced(fromHz, toHz, POINTS);
  const travel = new Travel(sheet, control);
  const dark = travel.circuit(0);
  const isLit = hasCell(dark);
  const solved: Omit<ControlRow, 'hz'>[] = [];
  for (const at of places()) {
    await pause();
    const analysis = travel.analysis(at);
    solved.push({
      at,
      moved: movedAt(control, at),
      cellOhms: isLit ? cellOhmsIn(travel.circuit(at)) : null,
      levelDb: levelsDb(analysis.voltage(outNet(sheet), frequenciesHz)),
      figures: filterFigures(analysis, outNet(sheet), aroundView(sheet.view)),
    });
  }
  const measuredBy = solved.every(({ figures: f }) => isSharp(f)) ? 'pair' : 'half-power';
  const rows = solved.map((row) => ({ ...row, hz: cutOff(row.figures, measuredBy) }));
  const law = lawOf(control);
  const wanted = law && wantedHz(control, law, rows);
  const cents = wanted && centsFrom(rows, wanted);
  return {
    control: id,
    frequenciesHz,
    rows,
    measuredBy,
    law: wanted ? law : null,
    cents,
    pluck: pluckOf(dark, control.moves[0], rows),
    trim: cents && law?.is === 'octaves' ? trimOf(cents, octavesOf(control) * CENTS) : null,
    drift: wanted ? await driftOf(travel, measuredBy, wanted, pause) : [],
  };
}

/**
 * Where a filter’s figures are read: about what is shown. Far below it, coupling capacitors and what
 * holds the rest make plateaus and corners of their own.
 */
export const aroundView = ({ fromHz, toHz }: Sheet['view']): Band => ({
  fromHz: fromHz / 8,
  toHz: toHz * 8,
});

const places = (): number[] => Array.from({ length: PLACES }, (_, k) => k / (PLACES - 1));

/** A pair sharper than this is where the filter is heard to be; a duller one is no place of its own. */
const SHARP = 1;
const isSharp = ({ q, pairHz }: FilterFigures): boolean =>
  pairHz !== null && (q === null || q < 0 || q > SHARP);

const cutOff = (f: FilterFigures, by: ControlPicture['measuredBy']): number | null =>
  by === 'pair' ? f.pairHz : f.halfPowerHz;

/** The circuit of a sheet along the travel of a control, at a temperature. */
class Travel {
  private readonly solved = new Successive();

  constructor(
    private readonly sheet: Sheet,
    private readonly control: Control,
  ) {}

  circuit(at: number, kelvin?: number): Circuit {
    const place = placeOf({ ...this.control, at }, kelvin);
    const others = this.sheet.controls.map((c) => (c === this.control ? withoutConverter(c) : c));
    const turned = turnedTo({ ...this.sheet, controls: others }, this.control.id, place);
    const built = pathCircuit(turned, 0, 'built');
    return kelvin === undefined ? built : warmed(built, kelvin);
  }

  analysis(at: number, kelvin?: number): AcAnalysis {
    return this.solved.of(this.circuit(at, kelvin));
  }

  figures(at: number, kelvin?: number): FilterFigures {
    return filterFigures(
      this.analysis(at, kelvin),
      outNet(this.sheet),
      aroundView(this.sheet.view),
    );
  }
}

const movedAt = (control: Control, at: number): number =>
  movedTo(control.moves[0], placeOf({ ...control, at }));

/** What a control is meant to do; a knob is not meant to do anything in particular. */
function lawOf(control: Control): ControlLaw | null {
  const [first] = control.moves;
  if (control.for !== 'cut-off' || first.from * first.to <= 0) return null;
  if (isConverted(control) && control.span) {
    const { from, to } = control.span;
    return { is: 'octaves', perVolt: octavesOf(control) / (to - from) };
  }
  if (control.is === 'amps' && first.law !== 'by ratio' && first.quantity === 'biasAmps')
    return { is: 'proportion', perVolt: 0 };
  return null;
}

/** What the law wants at each place, tuned where the travel is half way. */
function wantedHz(control: Control, law: ControlLaw, rows: readonly ControlRow[]) {
  const middle = rows[(PLACES - 1) / 2];
  if (middle.hz === null) return null;
  const { hz } = middle;
  const octaves = law.is === 'octaves' ? octavesOf(control) : 0;
  return Float64Array.from(rows, ({ at, moved }) =>
    law.is === 'octaves' ? hz * 2 ** (octaves * (at - middle.at)) : (hz * moved) / middle.moved,
  );
}

const centsFrom = (rows: readonly { hz: number | null }[], wanted: Float64Array): Float64Array =>
  Float64Array.from(rows, ({ hz }, k) => (hz === null ? NaN : CENTS * Math.log2(hz / wanted[k])));

async function driftOf(
  travel: Travel,
  measuredBy: ControlPicture['measuredBy'],
  wanted: Float64Array,
  pause: Pause,
): Promise<ControlPicture['drift']> {
  const drift: ControlPicture['drift'] = [];
  for (const kelvin of ROOMS) {
    const rows: { hz: number | null }[] = [];
    for (const at of places()) {
      await pause();
      rows.push({ hz: cutOff(travel.figures(at, kelvin), measuredBy) });
    }
    drift.push({ kelvin, cents: centsFrom(rows, wanted) });
  }
  return drift;
}
