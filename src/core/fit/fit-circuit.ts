import { toItsEnd } from '@/core/to-its-end';
import { AcAnalysis } from '@/core/analysis/ac/ac';
import { polesAndZeros } from '@/core/analysis/poles/poles';
import type { Circuit, Part } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { Band, Landmark } from '@/core/response/landmarks';
import { responseOf } from '@/core/response/response';
import { fit } from './fit';
import type { Made, Offer } from './offers';
import type { Choice, FitPart, WantedReadings } from './problem';
import { piecesOf, takenBy } from './stock-of';
import { chosenParts, fitPart, type AskedPart, type Supply } from './supply';
import { wantedLevels, type Wanted } from './wanted';

export interface FitRequest {
  /** As it is built, with exact values. */
  circuit: Circuit;
  /** What it should be like: exact values, ideal op-amps. */
  ideal: Circuit;
  probe: string;
  /** A level that is wanted instead of the ideal one's. */
  wanted?: Wanted;
  supply: Supply;
  /** Boards that are to be built of it: stock must do for all. */
  boards?: number;
  /** Where the level is judged; by default about the poles of the ideal circuit. */
  span?: Band;
  landmarks?: readonly Landmark[];
  /** Parts to choose, with their exact values; by default all that the ideal circuit shares. */
  parts?: readonly AskedPart[];
  /** What is wanted of readings, by the values of the parts that are chosen. */
  readings?: (parts: readonly FitPart[]) => WantedReadings;
}

/** One choice for a whole circuit. */
export interface FittedCircuit {
  /** By part. */
  chosen: readonly { id: string; exact: number; value: number; made: Made }[];
  /** Greatest difference from the ideal level wherever that lies within 40 dB of its top. */
  worstDb: number;
  /** How far its readings miss; nought where they are met. */
  missed: number;
}

export interface CircuitFit {
  nearest: FittedCircuit;
  fitted: FittedCircuit;
  judged: Band;
}

/** The level is judged so far beyond the first and the last pole. */
const BEYOND = 30;
const HEARD: Band = { fromHz: 20, toHz: 20_000 };

/**
 * Real values for the parts of a circuit, so that its level is that of the ideal one.
 *
 * @returns a generator that hands over the best so far after every slice of work
 * @throws ReedError `range` where there is no part of a kind that is needed
 */
export function* fitCircuit(request: FitRequest): Generator<FittedCircuit, CircuitFit> {
  const { circuit, ideal, probe, supply, boards = 1 } = request;
  const poles = request.landmarks && request.span ? undefined : polesOf(ideal, probe);
  const span = request.span ?? spanOf(poles!);
  const wanted =
    request.wanted ??
    wantedLevels(responseOf(new AcAnalysis(ideal), probe), span, request.landmarks ?? poles);
  const parts = (request.parts ?? chosenParts(circuit)).map((asked) => {
    const { id, kind } = asked;
    const part = fitPart(asked, supply);
    if (part) return part;
    throw new ReedError(
      'range',
      asked.making === 'trimmer'
        ? `No ${kind} with a trimmer could be ${id}: nothing in the stock, or within the limits, reaches its value. Let it be made up otherwise.`
        : `There is no ${kind} that could be ${id}: nothing in the stock, or within the limits, comes near its value.`,
      { part: id },
    );
  });
  const search = fit({
    circuit,
    probe,
    wanted,
    parts,
    ...(request.readings ? { readings: request.readings(parts) } : {}),
    ...(supply.stock ? { enough: enoughOf(supply, boards) } : {}),
  });
  const told = (choice: Choice): FittedCircuit => ({
    chosen: parts.map(({ id, exact }, i) => ({ id, exact, ...choice.offers[i] })),
    worstDb: choice.worstDb,
    missed: choice.missed,
  });
  for (;;) {
    const { done, value } = search.next();
    if (!done) yield told(value);
    else return { nearest: told(value.nearest), fitted: told(value.fitted), judged: span };
  }
}

/** Run a fit to its end. */
export const fitted = toItsEnd;

function polesOf(ideal: Circuit, probe: string): Landmark[] {
  const { poleFigures, zeroFigures } = polesAndZeros(ideal, probe);
  return [...poleFigures, ...zeroFigures].flatMap(({ f0Hz, q }) =>
    f0Hz > 0 && Number.isFinite(f0Hz) ? [{ hz: f0Hz, q: q ?? 0.5 }] : [],
  );
}

function spanOf(landmarks: readonly Landmark[]): Band {
  const hz = landmarks.map((l) => l.hz);
  if (hz.length === 0) return HEARD;
  return { fromHz: Math.min(...hz) / BEYOND, toHz: Math.max(...hz) * BEYOND };
}

/** Whether the stock has what a choice takes, for so many boards. */
function enoughOf({ stock = {}, trimmers }: Supply, boards: number) {
  const there = new Map(
    [...Object.values(stock), trimmers ?? []].flatMap((items) =>
      items.map((i) => [i.id, i.quantity] as const),
    ),
  );
  return (offers: readonly Offer[]): boolean =>
    [...piecesOf(takenBy(offers), boards)].every(([id, count]) => count <= (there.get(id) ?? 0));
}

/** The circuit with the values of a choice; where one is made of two parts, with both of them. */
export function circuitOf(circuit: Circuit, { chosen }: Pick<FittedCircuit, 'chosen'>): Circuit {
  const byId = new Map(chosen.map((c) => [c.id, c]));
  const taken = new Set(circuit.parts.map((p) => p.id));
  const free = (name: string): string => (taken.has(name) ? free(`${name}'`) : name);
  const parts = circuit.parts.flatMap((part): Part[] => {
    const choice = byId.get(part.id);
    if (!choice) return [part];
    const { how, of } = choice.made;
    if (how === 'single') return [withMain(part, choice.value)];
    const two = part as Part & { a: string; b: string };
    const middle = free(`${part.id}.middle`);
    // Of a trimmer there is what it is set to.
    const both = how === 'trimmer' ? [of[0], choice.value - of[0]] : of;
    const [first, second] = both.map((value) => withMain(two, value));
    const isRow = how !== 'parallel';
    return [
      isRow ? ({ ...first, b: middle } as Part) : first,
      { ...second, id: free(`${part.id}.2`), ...(isRow ? { a: middle } : {}) },
    ];
  });
  return { ...circuit, parts };
}

function withMain(part: Part, value: number): Part {
  switch (part.kind) {
    case 'resistor':
      return { ...part, ohms: value };
    case 'capacitor':
      return { ...part, farads: value };
    case 'inductor':
      return { ...part, henries: value };
    default:
      return part;
  }
}
