import { mainHz } from '@/core/design/ask';
import { fitCircuit, type CircuitFit, type FittedCircuit } from '@/core/fit/fit-circuit';
import type { Pairs } from '@/core/fit/offers';
import { valuesMeeting } from '@/core/fit/meet-readings';
import { lessTaken, type DrawerSupply } from '@/core/fit/stock-of';
import { solveExact } from '@/core/fit/solve-exact';
import { FIELDS, isChosenKind, type AskedPart, type Supply } from '@/core/fit/supply';
import { Trial } from '@/core/fit/trial';
import { wantedCurve, type CurvePoints, type Wanted } from '@/core/fit/wanted';
import { partKindOf } from '@/core/parts';
import type { Band } from '@/core/response/landmarks';
import { exactValues } from './exact';
import { followsAsk } from './make';
import { pathLandmarks } from './landmarks';
import { outNet } from './nets';
import { namesInCircuit, pathCircuit } from './path-circuit';
import { wantedReadings } from './wanted-readings';
import type { Sheet, SheetDesign, Stage, StagePart, Way } from './schema';
import { designedAs, drawnParts, valuesOf } from './stage';

/** How the parts of a way are to be chosen. */
export interface FitOptions extends DrawerSupply {
  way?: number;
  pairs?: Pairs;
  boards?: number;
  /** Parts of the circuit, by name, that are set with a trimmer whatever is said of them. */
  trim?: readonly string[];
  /** Whether values that a person chose may be changed too. */
  all?: boolean;
  /** What is to be come near to; by default what the path is designed to be. */
  towards?: Towards;
}

/** What a path is to come near to: what is wanted of its readings, or the level of a curve. */
export type Towards = { is: 'readings' } | { is: 'curve'; curve: CurvePoints };

/** A part of a stage that is chosen, and what it is called in the circuit. */
interface Place {
  stage: string;
  part: string;
  asked: AskedPart;
}

/** A way with the parts of a choice in it. */
export interface WayFit {
  nearest: Way;
  fitted: Way;
  /** Absent where nothing was to be chosen. */
  result?: CircuitFit;
}

/** A capacitor or impedance that was asked for is kept to about this factor. */
const NEAR = 1.6;
const MATCHED = 2;
/** The level is judged so far about the frequency that an ask is about. */
const BEYOND = 30;

/**
 * Real values for the parts of a way, all at once, so that it comes as near as can be to its ideal
 * and its readings are met. Values that a person chose stay, unless all are asked for.
 *
 * @returns a generator that hands over the way with the best choice so far
 * @throws ReedError as solving the way
 */
export function* fitWay(sheet: Sheet, options: FitOptions = {}): Generator<Way, WayFit> {
  const { way: index = 0, boards, pairs } = options;
  const places = placesOf(sheet, index, options);
  const way = sheet.ways[index];
  if (places.length === 0) return { nearest: way, fitted: way };
  const aim = aimOf(sheet, index, places, options.towards);
  const exact = withExact(sheet, index, places);
  const circuit = pathCircuit(exact, index, 'built');
  const search = fitCircuit({
    circuit,
    // What was solved for on the circuit as it is built is what that is to be like.
    ideal: options.towards ? circuit : pathCircuit(exact, index, 'ideal'),
    ...(aim ? { wanted: aim } : {}),
    probe: outNet(sheet, index),
    supply: {
      ...sheet.parts,
      ...(pairs ? { pairs } : {}),
      ...lessTaken(options, keptFrom(sheet, places, options), boards),
      limits: limitsOf(sheet),
    },
    ...(boards === undefined ? {} : { boards }),
    span: spanOf(sheet),
    landmarks: pathLandmarks(exact.ways[index], 'ideal'),
    parts: places.map((p) => p.asked),
    readings: (parts) => wantedReadings(sheet, index, circuit, parts),
  });
  for (;;) {
    const { done, value } = search.next();
    if (!done) yield withChoice(way, places, value);
    else
      return {
        nearest: withChoice(way, places, value.nearest),
        fitted: withChoice(way, places, value.fitted),
        result: value,
      };
  }
}

/** Steps that are taken towards a curve, five at a time. */
const ROUNDS = 6;

/**
 * What is wanted instead of the design; the exact values of the places become those that come nearest
 * to it.
 */
function aimOf(
  sheet: Sheet,
  index: number,
  places: Place[],
  towards: Towards | undefined,
): Wanted | undefined {
  if (!towards) return undefined;
  const circuit = pathCircuit(withExact(sheet, index, places), index, 'built');
  const parts = places.map(({ asked }) => ({ id: asked.id, field: FIELDS[asked.kind] }));
  let values: ArrayLike<number> = places.map((p) => p.asked.exact);
  let wanted: Wanted | undefined;
  if (towards.is === 'readings')
    values = valuesMeeting(wantedReadings(sheet, index, circuit, parts), Array.from(values));
  else {
    wanted = wantedCurve(towards.curve, sheet.view);
    const trial = new Trial(circuit, outNet(sheet, index), parts);
    const all = parts.map((_, i) => i);
    for (let round = 0; round < ROUNDS; round++)
      values = solveExact(trial, wanted.coarse, values, all, false)?.values ?? values;
  }
  places.forEach((place, i) => (place.asked = { ...place.asked, exact: values[i] }));
  return wanted;
}

/** The parts of a way that are chosen, with the values they would have if any could be had. */
function placesOf(
  sheet: SheetDesign,
  index: number,
  { all = false, trim = [], towards }: Pick<FitOptions, 'all' | 'trim' | 'towards'>,
): Place[] {
  const way = sheet.ways[index];
  const nameOf = namesInCircuit(sheet, index);
  return way.stages
    .filter((s) => !s.bypassed)
    .flatMap((stage) => {
      const designed = exactValues(stage);
      // Nothing but what is to be come near to says what the parts of an own circuit should be.
      const isFree = all || (towards !== undefined && designed === undefined);
      const values = designed ?? (isFree ? valuesOf(stage) : {});
      return drawnParts(stage).flatMap(({ id, kind }): Place[] => {
        const own = stage.parts[id] as StagePart | undefined;
        const free = isFree || own?.chosen === 'fit';
        if (!free || !(id in values) || !isChosenKind(kind) || partKindOf(kind).series === null)
          return [];
        const kept = reachOf(stage, kind);
        const name = nameOf(stage, id);
        const making = trim.includes(name) ? 'trimmer' : own?.may;
        return [
          {
            stage: stage.id,
            part: id,
            asked: {
              id: name,
              kind,
              exact: values[id],
              ...(kept === undefined ? {} : { reach: kept }),
              ...(making === undefined ? {} : { making }),
            },
          },
        ];
      });
    });
}

/** Entries of the drawer that parts are taken from which stay as they are, once for each piece. */
function keptFrom(
  { ways }: SheetDesign,
  places: readonly Place[],
  { way: index = 0, all = false, stock = {} }: FitOptions,
): string[] {
  const isChosen = (stage: string, part: string) =>
    places.some((p) => p.stage === stage && p.part === part);
  return ways.flatMap(({ stages }, w) =>
    stages.flatMap((stage) =>
      drawnParts(stage).flatMap(({ id, kind }) => {
        const { stock: from, made, chosen } = (stage.parts[id] as StagePart | undefined) ?? {};
        // Parts of other ways that are free are chosen in their turn.
        const stays = w === index ? !isChosen(stage.id, id) : !all && chosen !== 'fit';
        if (from === undefined || !stays || stage.bypassed) return [];
        if (!made) return [from];
        // Of two parts the entry of the first is known; the second is of one of its value.
        const items = isChosenKind(kind) ? (stock[kind] ?? []) : [];
        const second = items.find((item) => item.value === made.of[1] && item.id !== from);
        return [from, second?.id ?? from];
      }),
    ),
  );
}

/** How far a part may lie from its exact value, where that is not left to the search. */
function reachOf(stage: Stage, kind: string): number | undefined {
  // What a pad shows to both sides is what it is for.
  if (designedAs(stage)?.kind === 'attenuator') return MATCHED;
  return stage.ohms !== undefined ||
    stage.impedance !== undefined ||
    (stage.farads !== undefined && kind === 'capacitor')
    ? NEAR
    : undefined;
}

/** The sheet with the exact values of all that is chosen. */
function withExact(sheet: Sheet, index: number, places: readonly Place[]): Sheet {
  const ways = sheet.ways.map((way, w) =>
    w === index ? withParts(way, places, (_, { asked }) => ({ value: asked.exact })) : way,
  );
  return { ...sheet, ways };
}

/** A way with the parts of a choice in it. */
function withChoice(way: Way, places: readonly Place[], { chosen }: FittedCircuit): Way {
  return withParts(way, places, (i) => {
    const { value, made } = chosen[i];
    return {
      value,
      ...(made.how === 'single' ? {} : { made: { how: made.how, of: [...made.of] } }),
      ...(made.stock ? { stock: made.stock[0] } : {}),
    };
  });
}

function withParts(
  way: Way,
  places: readonly Place[],
  change: (at: number, place: Place) => Pick<StagePart, 'value' | 'made' | 'stock'>,
): Way {
  const stages = way.stages.map((stage) => {
    const own = places.flatMap((place, i) => (place.stage === stage.id ? [{ place, i }] : []));
    if (own.length === 0) return stage;
    const parts = { ...stage.parts };
    for (const { place, i } of own) {
      const part = { ...parts[place.part] };
      delete part.made;
      delete part.stock;
      parts[place.part] = { ...part, chosen: 'fit', ...change(i, place) };
    }
    return { ...stage, parts };
  });
  return { ...way, stages };
}

function limitsOf({ ask: { partLimits } }: Sheet): NonNullable<Supply['limits']> {
  const { leastOhms, greatestOhms, leastFarads, greatestFarads } = partLimits ?? {};
  return {
    resistor: [leastOhms ?? LEAST_OHMS, greatestOhms ?? GREATEST_OHMS],
    capacitor: [leastFarads ?? LEAST_FARADS, greatestFarads ?? Infinity],
  };
}
/** What nobody would solder without being asked to. */
const LEAST_OHMS = 1;
const GREATEST_OHMS = 10e6;
const LEAST_FARADS = 10e-12;

function spanOf(sheet: Sheet): Band {
  if (!followsAsk(sheet) || sheet.bank) return sheet.view;
  const hz = mainHz(sheet.ask);
  return { fromHz: hz / BEYOND, toHz: hz * BEYOND };
}
