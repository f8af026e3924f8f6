import { readCircuit, readCircuitIn, type Circuit } from '@/core/circuit/schema';
import { messageOf, ReedError } from '@/core/errors';
import { hasPartKind, PART_KINDS, partKindOf } from '@/core/parts';
import {
  graftAcross,
  graftInLine,
  graftRemove,
  graftShort,
  netOfPlace,
  withPartBetween,
  type CircuitAddition,
} from '@/core/parts/graft-circuit';
import { mainQuantity } from '@/core/parts/quantities';
import { parseQuantity } from '@/core/quantity/parse';
import { fileOf, readSheetFile } from '@/core/sheet/file';
import { sheetFault } from '@/core/sheet/read';
import { GRAFTS, type GraftWay } from '@/core/sheet/graft';
import { graftSheet, type SheetGraft } from '@/core/sheet/graft-sheet';
import { quoted } from '@/core/text';
import { readArgs, readJson, required, UsageError, writeOut, type Command } from '../command';

const text = { type: 'string' } as const;
const OPTIONS = {
  across: text,
  'in-line': text,
  'to-ground': text,
  between: text,
  swap: text,
  remove: text,
  short: text,
  kind: text,
  value: text,
  id: text,
  out: text,
};

/** One change of a circuit or of a stage of a sheet, written to another file. */
export const graft: Command = {
  name: 'graft',
  usage:
    'SHEET|CIRCUIT (--across PART | --in-line PART | --to-ground PLACE | --between PLACE,PLACE | --swap PART) --kind KIND [--value V] [--id NAME], or (--remove PART | --short PART), --out FILE; a place is a net, or the pin of a part as R2.b',
  summary:
    'put a part across another, in line with it, from here to ground; take one out, or short it',
  run(args) {
    const { values, positionals } = readArgs(args, OPTIONS, 1);
    const asked = GRAFTS.filter((w) => values[w] !== undefined);
    if (asked.length !== 1)
      throw new UsageError(`one of ${GRAFTS.map((w) => `--${w}`).join(', ')} is needed`);
    const out = required('out', values.out);
    const [way] = asked;
    const at = values[way]!;
    const addition = way === 'remove' || way === 'short' ? undefined : additionOf(values);
    const document = readJson(positionals[0]);
    const isSheet =
      typeof document === 'object' &&
      document !== null &&
      'format' in document &&
      document.format === 'jaunty-reed/sheet';
    const changed = isSheet
      ? changedSheet(document, { way, at, new: addition })
      : changedCircuit(readCircuitIn(document), way, at, addition);
    writeOut(out, `${JSON.stringify(changed.document, null, 2)}\n`);
    return { out, done: way, at, ...changed.told };
  },
};

/** What is put in, from the options. */
function additionOf(values: Record<string, string | undefined>): CircuitAddition {
  const word = required('kind', values.kind);
  // Kinds go by their names in files, and by what they are called.
  const kind = hasPartKind(word)
    ? word
    : PART_KINDS.find((k) => k.noun === word || k.noun.replaceAll(' ', '-') === word)?.kind;
  if (kind === undefined)
    throw new UsageError(
      `--kind: there is no ${quoted(word)}; there are ${PART_KINDS.map((k) => k.kind).join(', ')}`,
    );
  const main = mainQuantity(partKindOf(kind));
  const typed = values.value;
  if (typed !== undefined && !main)
    throw new UsageError(`--value: ${kind} has no value of its own`);
  try {
    return {
      kind,
      ...(typed === undefined || !main ? {} : { value: parseQuantity(typed, main.quantity) }),
      ...(values.id === undefined ? {} : { id: values.id }),
    };
  } catch (error) {
    throw new UsageError(`--value: ${messageOf(error)}`);
  }
}

function changedCircuit(
  circuit: Circuit,
  way: GraftWay,
  at: string,
  addition: CircuitAddition | undefined,
) {
  const [part, pin] = placed(circuit, at);
  const changed = ((): Circuit => {
    switch (way) {
      case 'across':
        return graftAcross(circuit, at, addition!);
      case 'in-line':
        return graftInLine(circuit, part, pin, addition!);
      case 'to-ground':
        return withPartBetween(circuit, netOfPlace(circuit, at), circuit.ground, addition!);
      case 'between': {
        const [from, to] = twoPlaces(at);
        return withPartBetween(
          circuit,
          netOfPlace(circuit, from),
          netOfPlace(circuit, to),
          addition!,
        );
      }
      case 'swap':
        return graftSwap(circuit, at, addition!);
      case 'remove':
        return graftRemove(circuit, at);
      case 'short':
        return graftShort(circuit, at);
    }
  })();
  // Whatever is written must be readable.
  return {
    document: readCircuit(JSON.parse(JSON.stringify(changed))),
    told: { parts: changed.parts.length },
  };
}

/** Another kind between the same two ends. */
function graftSwap(circuit: Circuit, part: string, addition: CircuitAddition): Circuit {
  const added = graftAcross(circuit, part, addition);
  return graftRemove(added, part);
}

function twoPlaces(text: string): [string, string] {
  const places = text.split(',').map((p) => p.trim());
  if (places.length !== 2 || places.includes(''))
    throw new UsageError('--between needs two places, apart by a comma');
  return [places[0], places[1]];
}

/** “R2.b” as a part and a pin, where no part is called so as a whole. */
function placed({ parts }: Circuit, at: string): [part: string, pin?: string] {
  const dot = at.lastIndexOf('.');
  if (parts.some((p) => p.id === at) || dot < 0) return [at];
  return [at.slice(0, dot), at.slice(dot + 1)];
}

function changedSheet(document: unknown, graft: SheetGraft) {
  const { sheet, along } = readSheetFile(document);
  const { sheet: changed, stage, words } = graftSheet(sheet, graft);
  const fault = sheetFault(changed, () => false);
  if (fault) throw new ReedError('range', `${fault.path} ${fault.message}.`);
  const file: unknown = JSON.parse(JSON.stringify(fileOf(changed, along)));
  readSheetFile(file);
  return { document: file, told: { stage, words } };
}
