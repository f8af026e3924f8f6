import { isPart, type Drawing } from '@/core/drawing/drawing';
import {
  partIn,
  put,
  putAcross,
  putBetween,
  putInLine,
  putToGround,
  short,
  swap,
  takeOut,
  type Addition,
  type Ends,
  type Place,
} from '@/core/drawing/grow/change';
import { ReedError } from '@/core/errors';
import { hasPartKind, partKindOf, withArticle } from '@/core/parts';
import { mainQuantity, quantityProblem } from '@/core/parts/quantities';
import { quoted } from '@/core/text';
import type { Stage, StagePart } from './schema';
import { drawingOf, drawnParts } from './stage';

/** What comes in by a graft: a kind of part with what is known of it. */
export interface NewPart {
  kind: string;
  /** Its main number; the usual one of its kind where none is said. */
  value?: number;
  /** What it is called; the next free number of its kind where nothing is said. */
  id?: string;
  model?: StagePart['model'];
}

/** One change of how a stage is wired. */
export type Graft =
  | { do: 'across'; part: string; new: NewPart }
  | { do: 'in-line'; part: string; pin?: string; new: NewPart }
  | { do: 'to-ground'; from: Place; new: NewPart }
  | { do: 'between'; from: Place; to: Place; new: NewPart }
  | { do: 'put'; ends: Ends; new: NewPart }
  | { do: 'swap'; part: string; new: NewPart }
  | { do: 'remove'; part: string }
  | { do: 'short'; part: string };

export const GRAFTS = [
  'across',
  'in-line',
  'to-ground',
  'between',
  'swap',
  'remove',
  'short',
] as const satisfies readonly Graft['do'][];

/** What becomes of a new part is found by its name. */
export type GraftWay = (typeof GRAFTS)[number];

/**
 * A stage with its circuit changed. Its drawing is its own from then on; what it was designed as
 * stays known, so that its formulas can be held against what it is now.
 *
 * @throws ReedError `range` naming the part or place that is not there, or why it cannot be done
 */
export function grafted(stage: Stage, graft: Graft): Stage {
  const drawing = drawingOf(stage);
  if (graft.do === 'remove' || graft.do === 'short') {
    const changed = (graft.do === 'remove' ? takeOut : short)(drawing, graft.part);
    return withDrawing(stage, changed, stage.parts);
  }
  const addition = additionTo(stage, graft);
  const changed = (() => {
    switch (graft.do) {
      case 'across':
        return putAcross(drawing, graft.part, addition);
      case 'in-line':
        return putInLine(drawing, graft.part, graft.pin, addition);
      case 'to-ground':
        return putToGround(drawing, graft.from, addition);
      case 'between':
        return putBetween(drawing, graft.from, graft.to, addition);
      case 'put':
        return put(drawing, addition, graft.ends);
      case 'swap':
        return swap(drawing, graft.part, addition);
    }
  })();
  const before = graft.do === 'swap' ? valueThere(stage, graft.part, addition.kind) : undefined;
  const part = partOf(graft.new, addition.id, before);
  return withDrawing(stage, changed, { ...stage.parts, [addition.id]: part });
}

/** The stage with a drawing of its own, and only the parts that are drawn. */
export function withDrawing(stage: Stage, drawing: Drawing, parts: Stage['parts']): Stage {
  const ids = new Set(drawing.symbols.filter(isPart).map((s) => s.id));
  return {
    ...stage,
    drawing,
    parts: Object.fromEntries(Object.entries(parts).filter(([id]) => ids.has(id))),
  };
}

/** Kind and name of what comes in. */
function additionTo(stage: Stage, graft: Extract<Graft, { new: NewPart }>): Addition {
  const { kind, id } = graft.new;
  if (!hasPartKind(kind))
    throw new ReedError('range', `No kind of part is called ${quoted(kind)}.`);
  const taken = new Set(drawnParts(stage).map((p) => p.id));
  if (graft.do === 'swap') {
    taken.delete(graft.part);
    // One diode for another keeps its name.
    const was = partKindOf(partIn(drawingOf(stage), graft.part).kind);
    if (id === undefined && was.letter === partKindOf(kind).letter) return { kind, id: graft.part };
  }
  if (id !== undefined && taken.has(id))
    throw new ReedError('range', `There is a part ${quoted(id)} already.`);
  return { kind, id: id ?? freeId(kind, taken) };
}

/** The next free number of a kind: R3. */
export function freeId(kind: string, taken: ReadonlySet<string>): string {
  const { letter } = partKindOf(kind);
  let n = 1;
  while (taken.has(`${letter}${n}`)) n++;
  return `${letter}${n}`;
}

/** The value that a part has, where another kind is measured alike: a resistor’s for a potentiometer. */
function valueThere(stage: Stage, part: string, kind: string): number | undefined {
  const was = mainQuantity(partKindOf(partIn(drawingOf(stage), part).kind));
  return was?.quantity === mainQuantity(partKindOf(kind))?.quantity
    ? stage.parts[part]?.value
    : undefined;
}

function partOf({ kind, value, model }: NewPart, id: string, before?: number): StagePart {
  const known = partKindOf(kind);
  const main = mainQuantity(known);
  if (!main && value !== undefined)
    throw new ReedError('range', `${withArticle(known)} has no value of its own.`);
  const own = value ?? before ?? main?.usual;
  const problem = main && own !== undefined ? quantityProblem(main, own) : null;
  if (problem) throw new ReedError('range', `${id} ${problem}.`);
  return {
    ...(main ? { value: own } : {}),
    chosen: 'hand',
    ...(model ? { model } : {}),
  };
}

/** What stands between the two ends of a part, in words: for telling what a graft did. */
export function graftWords(graft: Graft): string {
  const noun = 'new' in graft ? withArticle(partKindOf(graft.new.kind)) : '';
  const at = (place: Place) => ('net' in place ? place.net : `${place.part} ${place.pin}`);
  switch (graft.do) {
    case 'across':
      return `${noun} across ${graft.part}`;
    case 'in-line':
      return `${noun} in line with ${graft.part}`;
    case 'to-ground':
      return `${noun} from ${at(graft.from)} to ground`;
    case 'between':
      return `${noun} from ${at(graft.from)} to ${at(graft.to)}`;
    case 'put':
      return noun;
    case 'swap':
      return `${noun} for ${graft.part}`;
    case 'remove':
      return `${graft.part} taken out`;
    case 'short':
      return `${graft.part} shorted`;
  }
}
