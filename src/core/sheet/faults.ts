import { quoted } from '@/core/text';
import { hasTopology } from '@/core/topologies';
import { netsOfDrawing } from '@/core/topologies/instantiate';
import { firstIssue } from '@/core/document/issue';
import { isPart, isPort, type Drawing } from '@/core/drawing/drawing';
import { isChosenKind } from '@/core/fit/supply';
import { hasPartKind, partKindOf } from '@/core/parts';
import type { PartKind } from '@/core/parts/part-kind';
import { mainQuantity, quantityProblem } from '@/core/parts/quantities';
import type { Crossover } from './crossover-schema';
import type { Output, SheetDesign, Stage, StagePart } from './schema';
import { drawnParts, outputsOf } from './stage';

/** Something wrong with a document: where, and words that follow the name of the place. */
export interface Fault {
  path: string;
  message: string;
}

/** A second entry with the id of another, in a list whose entries are found by their ids. */
export function repeatedId(
  list: readonly { id: string }[],
  path: string,
  noun: string,
): Fault | null {
  const seen = new Set<string>();
  for (const [i, { id }] of list.entries()) {
    if (seen.has(id))
      return { path: `${path}[${i}]`, message: `a second ${noun} has the id ${quoted(id)}` };
    seen.add(id);
  }
  return null;
}

/** What is wrong with a design beyond its single fields. */
export function designFault(design: SheetDesign, at: string): Fault | null {
  const { ask, ways, readings, bank, crossover } = design;
  if (ask.topology !== undefined && !hasTopology(ask.topology))
    return { path: `${at}ask.topology`, message: `no topology is called ${quoted(ask.topology)}` };
  const repeated =
    repeatedId(ways, `${at}ways`, 'path') ?? repeatedId(readings, `${at}readings`, 'reading');
  if (repeated) return repeated;
  for (const [w, way] of ways.entries()) {
    const fault =
      repeatedId(way.stages, `${at}ways[${w}].stages`, 'stage') ??
      way.stages
        .map((stage, s) => stageFault(stage, `${at}ways[${w}].stages[${s}]`))
        .find((f) => f !== null);
    if (fault) return fault;
  }
  const joined = waysFault(design, at) ?? (crossover && crossoverFault(design, crossover, at));
  if (joined) return joined;
  if (!bank) return null;
  if (bank.channels.length !== ways.length || bank.channels.some((c, i) => c.id !== ways[i].id))
    return {
      path: `${at}bank`,
      message: 'its channels must be the ways, in the same order',
    };
  return null;
}

/** A crossover has a way for each driver, and hands over between neighbours. */
function crossoverFault({ ways }: SheetDesign, crossover: Crossover, at: string): Fault | null {
  const { splitsHz, nominalOhms, fromHz, toHz } = crossover;
  const fault = (name: keyof Crossover, message: string) => ({
    path: `${at}crossover.${name}`,
    message,
  });
  const odd = ways.findIndex((w) => w.to.is !== 'driver');
  if (odd >= 0)
    return { path: `${at}ways[${odd}].to`, message: 'a way of a crossover must end in a driver' };
  if (ways.length > 4) return { path: `${at}ways`, message: 'a crossover has at most 4 ways' };
  // Ways behind the bands, a helper for one, follow no split.
  if (splitsHz.length > ways.length - 1)
    return fault(
      'splitsHz',
      `must list at most ${ways.length - 1} frequencies for ${ways.length} ways`,
    );
  if (splitsHz.some((hz, i) => i > 0 && hz <= splitsHz[i - 1]))
    return fault('splitsHz', 'must rise from way to way');
  if (nominalOhms.length !== ways.length)
    return fault('nominalOhms', `must list ${ways.length} resistances for ${ways.length} ways`);
  return fromHz < toHz ? null : fault('toHz', 'must be above the lower frequency');
}

/** Where ways begin must be there, and no way may feed itself. */
function waysFault({ ways, controls }: SheetDesign, at: string): Fault | null {
  const hasOutput = ({ way, stage, port }: Output, from: number): boolean => {
    const its = way === undefined ? ways[from] : ways.find((w) => w.id === way);
    const found = its?.stages.find((s) => s.id === stage);
    return !!found && (port === undefined || outputsOf(found).some((p) => p.name === port));
  };
  for (const [w, { from }] of ways.entries()) {
    if (from.is !== 'output') continue;
    const path = `${at}ways[${w}].from.of`;
    const parent = ways.findIndex((o) => o.id === from.of.way);
    if (parent < 0 || parent >= w)
      return { path, message: 'it must name the stage of a way that stands before it' };
    if (!hasOutput(from.of, w)) return { path, message: 'there is no such stage or output' };
  }
  // A reading at an output that is gone says so where it stands: it comes back with its stage.
  return repeatedId(controls, `${at}controls`, 'control');
}

/** Stages are never changed, but made anew: one that passed passes again. */
const sound = new WeakSet<Stage>();

/**
 * A stage must be drawn by a known topology or by itself, and give every part of the drawing a
 * value that has one, and only those.
 */
export function stageFault(stage: Stage, path: string): Fault | null {
  if (sound.has(stage)) return null;
  const fault = faultOf(stage, path);
  if (!fault) sound.add(stage);
  return fault;
}

function faultOf(stage: Stage, path: string): Fault | null {
  if (stage.topology !== undefined && !hasTopology(stage.topology))
    return { path, message: `no topology is called ${quoted(stage.topology)}` };
  if (stage.topology === undefined && !stage.drawing)
    return { path, message: 'it has neither a topology nor a drawing' };
  if (stage.topology !== undefined && !stage.target)
    return { path, message: 'the figures of its topology are missing: target' };
  const drawn = stage.drawing ? drawingFault(stage.drawing) : null;
  if (drawn) return { path: `${path}.drawing`, message: drawn };
  const known = drawnParts(stage);
  for (const { id, kind } of known) {
    const fault = partFault(partKindOf(kind), id, stage.parts[id]);
    if (fault) return { path: `${path}.parts.${id}${fault.at}`, message: fault.message };
  }
  const extra = Object.keys(stage.parts).find((part) => !known.some((k) => k.id === part));
  if (extra !== undefined) return { path, message: `the drawing has no part ${quoted(extra)}` };
  if (stage.heard !== undefined && !outputsOf(stage).some((p) => p.name === stage.heard))
    return { path: `${path}.heard`, message: `it has no output ${quoted(stage.heard)}` };
  return null;
}

/** What is wrong with one part, and at which of its fields. */
function partFault(
  kind: PartKind,
  id: string,
  part: StagePart | undefined,
): { at: string; message: string } | null {
  const main = mainQuantity(kind);
  if (main) {
    if (part?.value === undefined) return { at: '', message: `the value of ${id} is missing` };
    const problem = quantityProblem(main, part.value);
    if (problem) return { at: '', message: problem };
  } else if (part?.value !== undefined)
    return { at: '', message: `${kind.article} ${kind.noun} has no value of its own` };
  for (const [name, value] of Object.entries(part?.more ?? {})) {
    const quantity = kind.quantities.slice(1).find((q) => q.name === name);
    if (!quantity)
      return { at: '.more', message: `${kind.article} ${kind.noun} has no ${quoted(name)}` };
    const problem = quantityProblem(quantity, value);
    if (problem) return { at: `.more.${name}`, message: problem };
  }
  const unlike = part?.made ? madeFault(kind, part) : null;
  if (unlike) return { at: '.made', message: unlike };
  if (part?.losses && !kind.lossy)
    return { at: '.losses', message: `${kind.article} ${kind.noun} has no losses` };
  if (!part?.model) return null;
  if (!kind.model) return { at: '.model', message: `${kind.article} ${kind.noun} has no model` };
  const result = kind.model.safeParse(part.model.model);
  if (result.success) return null;
  const { path, message } = firstIssue(result.error, part.model.model);
  return { at: path === '' ? '.model.model' : `.model.model.${path}`, message };
}

/** What two parts come to may differ from the value by rounding alone. */
const SAME = 1e-3;

/** What is wrong with the parts that a value is made up of. */
function madeFault(
  { article, noun, kind }: PartKind,
  { made, value = 0 }: StagePart,
): string | null {
  if (!isChosenKind(kind)) return `${article} ${noun} is not made up of two`;
  const { how, of } = made!;
  const [sum, beside] = [of[0] + of[1], (of[0] * of[1]) / (of[0] + of[1])];
  if (how === 'trimmer') {
    if (kind !== 'resistor') return `${article} ${noun} has no trimmer`;
    const isWithin = value >= of[0] * (1 - SAME) && value <= sum * (1 + SAME);
    return isWithin ? null : 'its trimmer cannot be set to its value';
  }
  const adds = how === (kind === 'capacitor' ? 'parallel' : 'series');
  return Math.abs((adds ? sum : beside) / value - 1) < SAME
    ? null
    : 'the two parts that it is made up of do not come to its value';
}

/** What is wrong with how an own drawing is joined, in words. */
function drawingFault(drawing: Drawing): string | null {
  const parts = drawing.symbols.filter(isPart);
  const repeated = repeatedId(parts, 'parts', 'part');
  if (repeated) return repeated.message;
  const unknown = parts.find((p) => !hasPartKind(p.kind));
  if (unknown) return `no kind of part is called ${quoted(unknown.kind)}`;
  const ports = drawing.symbols.filter(isPort);
  if (new Set(ports.map((p) => p.name)).size < ports.length) return 'two ports have one name';
  for (const net of ['in', 'out'])
    if (ports.filter((p) => p.net === net).length !== 1)
      return `it needs one main ${net === 'in' ? 'input' : 'output'}: a port on net ${quoted(net)}`;
  // Ends may hang open while a circuit is being traced.
  return netsOfDrawing(drawing).slanted[0] ?? null;
}
