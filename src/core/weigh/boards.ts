import { AcAnalysis } from '@/core/analysis/ac/ac';
import { centreOf, type Ask } from '@/core/design/ask';
import { hasPartKind, partKindOf } from '@/core/parts';
import { closeIn, risesAboveZero, type Curve } from '@/core/response/extremes';
import { aboutCentre } from '@/core/design/bands';
import { phaseDegrees } from '@/core/response/response';
import { findZero } from '@/core/numeric/root';
import { gridOver, highestOver, levelOf, lowestOver, type ExactDesign } from './exact';
import type { JudgedBands } from './judged';
import { closestFit, type Keeping } from './keeping';
import { seededRandom } from '@/core/random';

/** What spread parts make of a design. Nulls stand where a figure means nothing for its kind. */
export interface BoardFigures {
  /** Part of the boards that keep to the ask. */
  yield: number;
  /** What nine in ten boards reach, of a notch at the asked centre, dB. */
  depthDb: number | null;
  /** What nine in ten boards stay within: of a peak's height, dB. */
  heightErrorDb: number | null;
  /** Of a peak's width at half its height, as a part of it. */
  widthError: number | null;
  /** Of the level at the edge of a shelf (half its height) or a tilt, dB. */
  edgeErrorDb: number | null;
  /** Of the phase at the edge of an all-pass, degrees. */
  phaseErrorDegrees: number | null;
}

/** Allowed away from the ideal curve in the pass band, dB, where no limits were given. */
const KEEPS_WITHIN_DB = 1;
/** Allowed beyond the limits: in the pass band, in the stop band, dB. */
const PASS_ROOM_DB = 0.5;
const STOP_ROOM_DB = 1;
/** Allowed at the edge of an all-pass, degrees. */
const KEEPS_PHASE = 10;
const NINE_IN_TEN = 0.9;

/** How far usual parts of a kind are off; sources and amplifiers are as they are. */
const toleranceOf = (kind = '') => (hasPartKind(kind) ? partKindOf(kind).tolerance : 0);

/** Seeded boards, the same for every candidate of as many parts, each judged like the design itself. */
export function boardFigures(
  exact: ExactDesign,
  ask: Ask,
  bands: JudgedBands,
  keeping: Keeping,
  boards: number,
): BoardFigures {
  const random = seededRandom(1);
  const analysis = new AcAnalysis(exact.analysis);
  const nominal = Float64Array.from(analysis.values);
  const kinds = new Map(exact.circuit.parts.map((p) => [p.id, p.kind]));
  const tolerance = analysis.system.parameters.map(({ part }) => toleranceOf(kinds.get(part)));
  const level = levelOf(analysis);
  const judge = judgeOf(exact, ask, bands, keeping);
  const found = { depth: [], height: [], width: [], edge: [], phase: [] } as Errors;
  let good = 0;
  for (let board = 0; board < boards; board++) {
    for (let i = 0; i < nominal.length; i++)
      analysis.values[i] = nominal[i] * (1 + tolerance[i] * (2 * random() - 1));
    analysis.update();
    if (judge(level, analysis, found)) good++;
  }
  return {
    yield: good / boards,
    depthDb: found.depth.length > 0 ? -nineInTen(found.depth.map((db) => -db)) : null,
    heightErrorDb: nineInTenOrNull(found.height),
    widthError: nineInTenOrNull(found.width),
    edgeErrorDb: nineInTenOrNull(found.edge),
    phaseErrorDegrees: nineInTenOrNull(found.phase),
  };
}

/** Errors of every board, by what they are errors of; the depth itself. */
type Errors = Record<'depth' | 'height' | 'width' | 'edge' | 'phase', number[]>;
type Judge = (level: Curve, analysis: AcAnalysis, found: Errors) => boolean;

/** The value that nine in ten do not exceed. */
function nineInTen(values: readonly number[]): number {
  const rising = [...values].sort((a, b) => a - b);
  return rising[Math.ceil(NINE_IN_TEN * rising.length) - 1];
}
const nineInTenOrNull = (values: readonly number[]) =>
  values.length > 0 ? nineInTen(values) : null;

function judgeOf(exact: ExactDesign, ask: Ask, bands: JudgedBands, keeping: Keeping): Judge {
  const kept = (level: Curve) => closestFit(level, keeping, KEEPS_WITHIN_DB) <= 0;
  switch (ask.kind) {
    case 'notch':
      return (level, _, found) => {
        const { hz, flatDb } = keeping.notch!;
        found.depth.push(flatDb - level(Float64Array.of(hz))[0]);
        return kept(level);
      };
    case 'peak': {
      const shape = peakShape(ask, exact);
      const wanted = shape(exact.level);
      return (level, _, found) => {
        const own = shape(level);
        found.height.push(Math.abs(own.heightDb - wanted.heightDb));
        found.width.push(Math.abs(own.widthHz / wanted.widthHz - 1));
        return kept(level);
      };
    }
    case 'low-shelf':
    case 'high-shelf':
    case 'tilt': {
      const edge = Float64Array.of(ask.edgeHz!);
      const [wanted] = exact.level(edge);
      return (level, _, found) => {
        found.edge.push(Math.abs(level(edge)[0] - wanted));
        return kept(level);
      };
    }
    case 'all-pass': {
      const hz = Float64Array.of(ask.q === undefined ? ask.edgeHz! : centreOf(ask).centreHz);
      const turn = phaseAgainst(exact.analysis, hz);
      return (level, analysis, found) => {
        const off = turn(analysis);
        found.phase.push(off);
        return kept(level) && off <= KEEPS_PHASE;
      };
    }
    default:
      return ask.limits ? limitsJudge(ask.limits, bands, keeping, exact) : kept;
  }
}

/** Limits count from the board's own top, with a little room on either side. */
function limitsJudge(
  { passDb, stopDb }: NonNullable<Ask['limits']>,
  bands: JudgedBands,
  { grids }: Keeping,
  exact: ExactDesign,
): Judge {
  const stopGrids = bands.stop.map((band) => gridOver(band, exact));
  return (level) => {
    const search = { values: grids.map(level), fine: 1e-6 };
    const top = highestOver(level, grids, search).value;
    if (top - lowestOver(level, grids, search).value > passDb + PASS_ROOM_DB) return false;
    const most = top - stopDb + STOP_ROOM_DB;
    const over: Curve = (hz) => level(hz).map((db) => db - most);
    return stopGrids.every((grid) => risesAboveZero(over, grid, over(grid)) <= 0);
  };
}

/** Height over the flat part, and width at half the height in dB, of one board's peak. */
function peakShape(ask: Ask, exact: ExactDesign) {
  const { centreHz, q } = centreOf(ask);
  const sign = Math.sign(ask.gainDb!);
  // Spread parts move a centre by a few per cent; the summit is looked for a little further.
  const near = aboutCentre(centreHz, centreHz * Math.max(0.4, 1 / q));
  const far = Float64Array.of(centreHz / 1000);
  const grid = gridOver(near, exact);
  return (level: Curve): { heightDb: number; widthHz: number } => {
    const [flat] = level(far);
    const lift: Curve = (hz) => level(hz).map((db) => sign * (db - flat));
    const values = lift(grid);
    const top = values.reduce((best, db, k) => (db > values[best] ? k : best), 0);
    const summit = closeIn(
      lift,
      grid[Math.max(0, top - 1)],
      grid[Math.min(grid.length - 1, top + 1)],
      1e-6,
    );
    const half = (outHz: number) => {
      const below = (u: number) => lift(Float64Array.of(Math.exp(u)))[0] - summit.value / 2;
      const [a, b] = [Math.log(summit.hz), Math.log(outHz)].sort((x, y) => x - y);
      return Math.exp(findZero(below, a, b, 1e-8));
    };
    return {
      heightDb: sign * summit.value,
      widthHz: half(centreHz * 1000) - half(centreHz / 1000),
    };
  };
}

/** Degrees by which a board turns more or less than the exact design at one frequency. */
function phaseAgainst(exact: AcAnalysis, frequenciesHz: Float64Array) {
  const of = (analysis: AcAnalysis) => {
    const { re, im } = analysis.voltage('out', frequenciesHz);
    return phaseDegrees(re[0], im[0]);
  };
  const wanted = of(exact);
  return (analysis: AcAnalysis) => {
    const off = of(analysis) - wanted;
    return Math.abs(off - 360 * Math.round(off / 360));
  };
}
