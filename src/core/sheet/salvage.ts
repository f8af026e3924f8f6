import * as z from 'zod';
import { checkBounds } from '@/core/document/bounded';
import { firstIssue } from '@/core/document/issue';
import { messageOf } from '@/core/errors';
import { askSchema, mainHz, type Ask } from '@/core/design/ask';
import { cut, isVisible, quoted } from '@/core/text';
import { designFault, repeatedId, stageFault, type Fault } from './faults';
import { DEFAULT_PARTS, viewFor } from './make';
import { fromVersion1 } from './migrate-1';
import { SHEET_LIMITS } from './limits';
import {
  designSchema,
  keepSchema,
  partChoicesSchema,
  readingSchema,
  sourceSchema,
  SHEET_VERSION,
  stageSchema,
  viewSchema,
  waySchema,
  type Reading,
  type Sheet,
  type SheetDesign,
  type Source,
  type Stage,
  type Way,
  type WayEnd,
} from './schema';

/*
 * What can still be read of a damaged document: every part that passes for itself, put into a sheet
 * that passes as a whole, with a list of what had to be left out.
 */

export interface Salvage {
  sheet: Sheet;
  /** One line for each piece that was left out, with the reason. */
  leftOut: string[];
}

type Fields = Record<string, unknown>;

const fieldsOf = (value: unknown): Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Fields) : {};
const listOf = (value: unknown): unknown[] => (Array.isArray(value) ? (value as unknown[]) : []);

/** A legible title in a document that may be anything; empty when there is none. */
export function legibleTitle(document: unknown): string {
  const { title } = fieldsOf(document);
  return typeof title === 'string' && isVisible(title) ? cut(title.trim(), SHEET_LIMITS.name) : '';
}

/**
 * @param document what is stored, in any state
 * @param id of the sheet that comes of it
 * @param at now, ISO; stands in for dates that are not legible
 */
export function salvageSheet(document: unknown, id: string, at: string): Salvage {
  const leftOut: string[] = [];
  let fields = fieldsOf(document);
  try {
    checkBounds(document);
  } catch (error) {
    leftOut.push(messageOf(error));
    fields = {};
  }
  if (fields.version === 1) fields = fromVersion1(fields);
  const take = <T>(schema: z.ZodType<T>, value: unknown, what: string): T | undefined => {
    const result = schema.safeParse(value);
    if (result.success) return result.data;
    const { path, message } = firstIssue(result.error, value);
    leftOut.push(`${what}: ${path === '' ? 'it' : quoted(path)} ${message}`);
    return undefined;
  };
  const refuse = (what: string, { message }: Fault) => {
    leftOut.push(`${what}: ${message}`);
    return undefined;
  };

  let ask = take(askSchema, fields.ask, 'the ask') ?? PLAIN_ASK;
  const askFault = designFault({ ...NOTHING, ask }, '');
  if (askFault) {
    refuse('the ask’s topology', askFault);
    ask = { ...ask };
    delete ask.topology;
  }
  const parts = take(partChoicesSchema, fields.parts, 'the choice of parts') ?? DEFAULT_PARTS;

  const stageOf = (value: unknown, what: string): Stage | undefined => {
    const stage = take(stageSchema, value, what);
    const fault = stage && stageFault(stage, what);
    return fault ? refuse(what, fault) : stage;
  };
  const wayOf = (value: unknown, i: number): Way => {
    const way = fieldsOf(value);
    const what = `path ${i + 1}`;
    const stages = listOf(way.stages).flatMap(
      (s, k) => stageOf(s, `${what}, stage ${k + 1}`) ?? [],
    );
    const { from, to } = waySchema.shape;
    return {
      id: typeof way.id === 'string' && way.id !== '' ? cut(way.id, 64) : `w${i + 1}`,
      name: typeof way.name === 'string' ? cut(way.name, SHEET_LIMITS.name) : `Path ${i + 1}`,
      from: take(from, way.from ?? { is: 'source' }, `${what}, where it begins`) ?? {
        is: 'source',
      },
      stages: unique(stages, 'stage', what, leftOut).slice(0, SHEET_LIMITS.stages),
      to: take(to, way.to, `${what}, its end`) ?? OPEN_END,
    };
  };
  const ways = unique(
    listOf(fields.ways).slice(0, SHEET_LIMITS.ways).map(wayOf),
    'path',
    'the sheet',
    leftOut,
  );
  if (ways.length === 0) {
    leftOut.push('the paths: none could be read');
    ways.push(wayOf({ to: OPEN_END }, 0));
  }
  // A way that leaves an output which is not there any more begins at the source.
  for (const way of ways) {
    const joint = designFault({ ...NOTHING, ask, parts, ways }, '');
    if (!joint || !joint.path.includes('.from.')) break;
    const index = Number(/ways\[(\d+)\]/.exec(joint.path)?.[1] ?? ways.indexOf(way));
    refuse(`where path ${index + 1} begins`, joint);
    ways[index] = { ...ways[index], from: { is: 'source' } };
  }
  const source = take(sourceSchema, fields.source, 'the source') ?? PLAIN_SOURCE;
  const readings = unique(
    listOf(fields.readings).flatMap((r, i) => take(readingSchema, r, `reading ${i + 1}`) ?? []),
    'reading',
    'the sheet',
    leftOut,
  ).slice(0, SHEET_LIMITS.readings);

  const keeps = unique(
    listOf(fields.keeps).flatMap((k, i) => {
      const { name } = fieldsOf(k);
      const what =
        typeof name === 'string' && isVisible(name) ? `keep ${quoted(name)}` : `keep ${i + 1}`;
      const keep = take(keepSchema, k, what);
      const fault = keep && designFault(keep.design, '');
      return (fault ? refuse(what, fault) : keep) ?? [];
    }),
    'keep',
    'the sheet',
    leftOut,
  ).slice(0, SHEET_LIMITS.keeps);

  let bank =
    fields.bank === undefined ? undefined : take(designSchema.shape.bank, fields.bank, 'the bank');
  let crossover =
    fields.crossover === undefined
      ? undefined
      : take(designSchema.shape.crossover, fields.crossover, 'the crossover');
  if (crossover) {
    const fault = designFault({ ...NOTHING, ask, parts, source, ways, readings, crossover }, '');
    if (fault) crossover = refuse('the crossover', fault);
  }
  if (bank) {
    const fault = designFault({ ...NOTHING, ask, parts, source, ways, readings, bank }, '');
    if (fault) bank = refuse('the bank', fault);
  }
  const readingFault = (reading: Reading): boolean => {
    const fault = designFault({ ...NOTHING, ask, parts, ways, readings: [reading] }, '');
    return fault ? refuse(`reading ${quoted(reading.id)}`, fault) === undefined : false;
  };
  const { controls: controlList, boards: boardList } = designSchema.shape;
  const controls = take(controlList, fields.controls, 'the controls') ?? [];
  const boards = take(boardList, fields.boards, 'the boards') ?? [];
  const view = take(viewSchema, fields.view, 'the view');
  const title = legibleTitle(document);
  if (title === '') leftOut.push('the name: it is not legible');
  return {
    sheet: {
      format: 'jaunty-reed/sheet',
      version: SHEET_VERSION,
      id,
      title: title || 'A sheet without a name',
      createdAt: dateOr(fields.createdAt, at),
      updatedAt: at,
      revision: 0,
      ask,
      parts,
      source,
      ways,
      readings: readings.filter((r) => !readingFault(r)),
      ...(bank ? { bank } : {}),
      ...(crossover ? { crossover } : {}),
      keeps,
      controls,
      boards,
      view: view && view.fromHz < view.toHz ? view : { lens: 'level', ...viewFor(mainHz(ask)) },
    },
    leftOut,
  };
}

const PLAIN_SOURCE: Source = { name: 'Source', ohms: 0, volts: 1 };
const OPEN_END: WayEnd = { is: 'load', name: 'Load', ohms: null, farads: null };

const PLAIN_ASK: Ask = {
  kind: 'low-pass',
  shape: 'butterworth',
  order: 2,
  edgeHz: 1000,
  edge: 'half-power',
};

/** A design of nothing, to hold single pieces against. */
const NOTHING: SheetDesign = {
  ask: PLAIN_ASK,
  parts: DEFAULT_PARTS,
  source: PLAIN_SOURCE,
  ways: [],
  readings: [],
  controls: [],
  boards: [],
};

/** The list without entries whose id an earlier one has. */
function unique<T extends { id: string }>(
  list: readonly T[],
  noun: string,
  where: string,
  leftOut: string[],
): T[] {
  const kept: T[] = [];
  for (const entry of list) {
    const fault = repeatedId([...kept, entry], where, noun);
    if (fault) leftOut.push(`${where}: ${fault.message}`);
    else kept.push(entry);
  }
  return kept;
}

const isDate = z.iso.datetime();
const dateOr = (value: unknown, otherwise: string): string =>
  isDate.safeParse(value).data ?? otherwise;
