import { makeCircuit, netsOf, type Circuit, type Part } from '@/core/circuit/schema';
import { deviceOf } from '@/core/circuit/devices';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { acrossPins, numberedName, partKindOf, withArticle } from '.';
import type { PartKind, PartTaken } from './part-kind';
import { mainQuantity, quantityProblem, usualValues } from './quantities';
import { takenBy } from './take-circuit';

/*
 * Grafts on a bare net list, for circuits that come without a drawing. Their parts are those of the
 * circuit format.
 */

/** What comes in. */
export interface CircuitAddition {
  kind: string;
  value?: number;
  id?: string;
}

/** A place of a circuit: a net, the pin of a part as “R2.b”, or a part: its far end from ground. */
export function netOfPlace(circuit: Circuit, place: string): string {
  if (place === circuit.ground || netsOf(circuit).includes(place)) return place;
  const dot = place.lastIndexOf('.');
  const whole = circuit.parts.find((p) => p.id === place);
  if (whole) {
    const [first, second] = endsOf(circuit, place);
    return second === circuit.ground ? first : second;
  }
  const part = circuit.parts.find((p) => p.id === place.slice(0, Math.max(0, dot)));
  const net = part && takenPart(circuit, part).taken.nets[place.slice(dot + 1)];
  if (net !== undefined) return net;
  throw new ReedError('circuit', `The circuit has no net, part or pin ${quoted(place)}.`);
}

/** The circuit with a new part between two nets. */
export function withPartBetween(
  circuit: Circuit,
  from: string,
  to: string,
  { kind, value, id }: CircuitAddition,
): Circuit {
  const known = partKindOf(kind);
  const [first, second] = acrossPins(known);
  const pins = known.symbol.pins.filter((p) => !p.optional);
  if (pins.length > 3 || first === second || known.symbol.words === 'triangle')
    throw new ReedError(
      'range',
      `${withArticle(known)} has ${pins.length} ends and cannot stand between two points.`,
    );
  if (from === to) throw new ReedError('range', 'Both places are the same point of the circuit.');
  const main = mainQuantity(known);
  const problem = main && value !== undefined ? quantityProblem(main, value) : null;
  if (problem) throw new ReedError('range', `The value ${problem}.`);
  if (!main && value !== undefined)
    throw new ReedError('range', `${withArticle(known)} has no value of its own.`);
  const name = id ?? freeName(circuit, kind);
  const added = known.become({
    id: name,
    nets: Object.fromEntries(pins.map((p) => [p.name, p.name === first ? from : to])),
    values: {
      ...usualValues(known),
      ...(main && value !== undefined ? { [main.name]: value } : {}),
    },
    model: known.models?.[0]?.model,
    ground: circuit.ground,
  });
  const clash = added.find((p) => circuit.parts.some((o) => o.id === p.id));
  if (clash) throw new ReedError('range', `There is a part ${quoted(clash.id)} already.`);
  return { ...circuit, parts: [...circuit.parts, ...added] };
}

/** A part across another: between its first two terminals, or those its kind names. */
export function graftAcross(circuit: Circuit, part: string, addition: CircuitAddition): Circuit {
  const [from, to] = endsOf(circuit, part);
  return withPartBetween(circuit, from, to, addition);
}

/** A part in a row with another, at its second end or at the pin that is named. */
export function graftInLine(
  circuit: Circuit,
  part: string,
  pin: string | undefined,
  addition: CircuitAddition,
): Circuit {
  const found = partOf(circuit, part);
  const { kind, taken } = takenPart(circuit, found);
  const at = pin ?? kind.inLine ?? acrossPins(kind)[1];
  const net = taken.nets[at];
  if (net === undefined) throw new ReedError('range', `${quoted(part)} has no pin ${quoted(at)}.`);
  const between = freeNet(circuit);
  const [moved, ...more] = kind.become({
    ...taken,
    id: part,
    nets: { ...taken.nets, [at]: between },
    ground: circuit.ground,
  });
  const own = found.note === undefined ? moved : { ...moved, note: found.note };
  const parts = circuit.parts.flatMap((p) => (p === found ? [own, ...more] : [p]));
  return withPartBetween({ ...circuit, parts }, between, net, addition);
}

/** The circuit without a part. */
export function graftRemove(circuit: Circuit, part: string): Circuit {
  const found = partOf(circuit, part);
  const refers = circuit.parts.find((p) => p.kind === 'coupling' && p.inductors.includes(part));
  if (refers)
    throw new ReedError(
      'range',
      `${quoted(part)} is coupled by ${quoted(refers.id)}: take that out first.`,
    );
  if (circuit.parts.length === 1)
    throw new ReedError('range', 'The last part cannot be taken out.');
  return { ...circuit, parts: circuit.parts.filter((p) => p !== found) };
}

/** The circuit with a wire in the place of a part with two ends: their nets are one. */
export function graftShort(circuit: Circuit, part: string): Circuit {
  const found = partOf(circuit, part);
  const nets = Object.values(deviceOf(found.kind).terminals(found));
  if (nets.length !== 2)
    throw new ReedError(
      'range',
      `${quoted(part)} has ${nets.length} ends: only a part with two can be shorted.`,
    );
  // Ground keeps its name, and so does what was named first.
  const [keep, gone] = nets[1] === circuit.ground ? [nets[1], nets[0]] : nets;
  const bare = graftRemove(circuit, part);
  const parts = bare.parts.map((p) => {
    const terminals = deviceOf(p.kind).terminals(p);
    const renamed = Object.entries(terminals).filter(([, net]) => net === gone);
    return { ...p, ...Object.fromEntries(renamed.map(([terminal]) => [terminal, keep])) };
  });
  return makeCircuit(parts, circuit.title, circuit.ground);
}

function partOf(circuit: Circuit, id: string): Part {
  const found = circuit.parts.find((p) => p.id === id);
  if (found) return found;
  throw new ReedError('range', `There is no part ${quoted(id)} here.`);
}

/** A part of a circuit as its kind sees it. */
function takenPart(circuit: Circuit, part: Part): { kind: PartKind; taken: PartTaken } {
  const found = takenBy(part, circuit.ground);
  if (found) return found;
  throw new ReedError('range', `Nothing can be joined to ${quoted(part.id)}.`);
}

/** The two nets that “across” a part means. */
function endsOf(circuit: Circuit, id: string): [string, string] {
  const { kind, taken } = takenPart(circuit, partOf(circuit, id));
  const [from, to] = acrossPins(kind).map((pin) => taken.nets[pin]);
  if (from !== to) return [from, to];
  throw new ReedError('range', `Nothing can be put across ${quoted(id)}.`);
}

function freeName(circuit: Circuit, kind: string): string {
  const used = new Set(circuit.parts.map((p) => p.id));
  const counts = new Map<string, number>();
  for (;;) {
    const name = numberedName(counts, kind);
    if (!used.has(name) && !used.has(`${name}.1`)) return name;
  }
}

function freeNet(circuit: Circuit): string {
  const used = new Set(netsOf(circuit));
  for (let n = 1; ; n++) if (!used.has(`m${n}`)) return `m${n}`;
}
