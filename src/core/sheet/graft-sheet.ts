import type { Place } from '@/core/drawing/grow/change';
import { acrossPins, partKindOf } from '@/core/parts';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { netsOfDrawing } from '@/core/topologies/instantiate';
import { grafted, graftWords, type Graft, type GraftWay, type NewPart } from './graft';
import { netInStage } from './nets';
import { partNames } from './path-circuit';
import type { Sheet, Stage } from './schema';
import { drawingOf } from './stage';

/** A graft by the names that a whole path shows: parts as they are numbered through, nets of its circuit. */
export interface SheetGraft {
  way: GraftWay;
  /** A part, a place, or two places apart by a comma. */
  at: string;
  new?: NewPart;
}

/**
 * Find the stage that a graft speaks of in the first way of a sheet, and change it.
 *
 * @returns the changed sheet, the stage’s id, and what was done in words
 * @throws ReedError `range` naming the part or place that is not there
 */
export function graftSheet(
  sheet: Sheet,
  graft: SheetGraft,
): { sheet: Sheet; stage: string; words: string } {
  const { stages } = sheet.ways[0];
  const names = partNames(stages);
  for (const stage of stages) {
    const local = new Map([...names.get(stage.id)!].map(([id, name]) => [name, id]));
    const found = localGraft(sheet, stage, local, graft);
    if (!found) continue;
    const changed = grafted(stage, found);
    const ways = sheet.ways.map((way, w) =>
      w === 0 ? { ...way, stages: way.stages.map((s) => (s === stage ? changed : s)) } : way,
    );
    return { sheet: { ...sheet, ways }, stage: stage.id, words: graftWords(found) };
  }
  throw new ReedError('range', `The path has no part or net ${quoted(graft.at)}.`);
}

/** Of a part's two ends the one that is not ground, the second before the first. */
function farEnd(stage: Stage, id: string): Place | undefined {
  const part = netsOfDrawing(drawingOf(stage)).parts.find((p) => p.id === id);
  if (!part) return undefined;
  const [first, second] = acrossPins(partKindOf(part.kind));
  return { part: id, pin: part.nets[second] === '0' ? first : second };
}

/** The graft in a stage’s own names, if what it speaks of is this stage’s. */
function localGraft(
  sheet: Sheet,
  stage: Stage,
  local: ReadonlyMap<string, string>,
  { way, at, new: addition }: SheetGraft,
): Graft | undefined {
  const place = (text: string): Place | undefined => {
    const dot = text.lastIndexOf('.');
    const part = local.get(text.slice(0, Math.max(0, dot)));
    if (part !== undefined) return { part, pin: text.slice(dot + 1) };
    const whole = local.get(text);
    if (whole !== undefined) return farEnd(stage, whole);
    const net = netsOfDrawing(drawingOf(stage)).nets.find(
      (n) => n !== '0' && n !== 'in' && netInStage(sheet, 0, stage, n) === text,
    );
    if (net !== undefined) return { net };
    return text === 'in' && sheet.ways[0].stages[0] === stage ? { net: 'in' } : undefined;
  };
  const dot = at.lastIndexOf('.');
  const whole = local.get(at);
  const part = whole ?? local.get(at.slice(0, Math.max(0, dot)));
  const pin = whole === undefined && dot > 0 ? at.slice(dot + 1) : undefined;
  switch (way) {
    case 'remove':
    case 'short':
      return whole === undefined ? undefined : { do: way, part: whole };
    case 'across':
    case 'swap':
      return whole === undefined ? undefined : { do: way, part: whole, new: addition! };
    case 'in-line':
      return part === undefined
        ? undefined
        : { do: way, part, ...(pin === undefined ? {} : { pin }), new: addition! };
    case 'to-ground': {
      const from = place(at);
      return from && { do: way, from, new: addition! };
    }
    case 'between': {
      const [from, to] = at.split(',').map((p) => place(p.trim()));
      return from && to && { do: way, from, to, new: addition! };
    }
  }
}
