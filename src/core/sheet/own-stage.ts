import type { Circuit } from '@/core/circuit/schema';
import { netsOf } from '@/core/circuit/schema';
import type { Drawing } from '@/core/drawing/drawing';
import { drawn, type NetList } from '@/core/drawing/grow/layout';
import { ReedError } from '@/core/errors';
import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import { takeCircuit, type TakenPart } from '@/core/parts/take-circuit';
import { cut, quoted } from '@/core/text';
import type { Stage, StagePart } from './schema';

/** A drawing of nothing but an input and an output that waits to be joined. */
const EMPTY_DRAWING: Drawing = {
  symbols: [
    { kind: 'port', name: 'in', flow: 'in', net: 'in', at: [0, 0] },
    { kind: 'port', name: 'out', flow: 'out', net: 'out', at: [24, 0] },
  ],
  wires: [],
};

/** A stage that is to be drawn part by part. */
export const ownStage = (id: string): Stage => ({
  id,
  drawing: EMPTY_DRAWING,
  origin: 'hand',
  bypassed: false,
  parts: {},
});

export interface OwnStageOptions {
  id: string;
  name?: string;
  /** Nets of the circuit at the input and the output. */
  input?: string;
  output?: string;
}

/**
 * A circuit as a stage of its own: the source that drives it gives way to the input, and the rest is
 * drawn by itself.
 *
 * @throws ReedError `circuit` where input or output cannot be told, or a part cannot be drawn
 */
export function stageOfCircuit(circuit: Circuit, options: OwnStageOptions): Stage {
  const taken = takeCircuit(circuit);
  const driving = drivingSource(taken, circuit.ground, options.input);
  const input = options.input ?? driving?.nets.plus ?? named(circuit, 'in', 'input');
  const output = options.output ?? named(circuit, 'out', 'output');
  for (const net of [input, output])
    if (!netsOf(circuit).includes(net))
      throw new ReedError('circuit', `The circuit has no net ${quoted(net)}.`, { net });
  const ids = shortIds(taken);
  const parts = taken.filter((p) => p !== driving);
  const list: NetList = {
    parts: parts.map((p) => ({ id: ids.get(p.id)!, kind: p.kind, nets: p.nets })),
    ports: [
      { name: 'in', flow: 'in', net: input, main: true },
      { name: 'out', flow: 'out', net: output, main: true },
    ],
    ground: circuit.ground,
  };
  return {
    id: options.id,
    ...(options.name === undefined ? {} : { name: options.name }),
    drawing: drawn(list),
    origin: 'hand',
    bypassed: false,
    parts: Object.fromEntries(parts.map((p) => [ids.get(p.id)!, stagePartOf(p)])),
  };
}

/** A part of a circuit file as a part of a stage; what is as usual is not said. */
export function stagePartOf({ kind, values, model, lossOhms }: TakenPart): StagePart {
  const known = partKindOf(kind);
  const main = mainQuantity(known);
  const more = Object.fromEntries(
    known.quantities.slice(1).flatMap(({ name, usual }) => {
      const value = values[name] ?? usual;
      return value === usual ? [] : [[name, value]];
    }),
  );
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const offered = known.models?.find((m) => same(m.model, model));
  return {
    ...(main ? { value: values[main.name] } : {}),
    chosen: 'hand',
    ...(Object.keys(more).length > 0 ? { more } : {}),
    ...(lossOhms === undefined ? {} : { losses: { ohms: lossOhms } }),
    ...(model === undefined ? {} : { model: { name: offered?.name ?? 'from the file', model } }),
  };
}

/** The one source of a small signal, or the one at a given net. */
function drivingSource(
  parts: readonly TakenPart[],
  ground: string,
  input: string | undefined,
): TakenPart | undefined {
  const sources = parts.filter(
    (p) =>
      p.kind === 'source' &&
      p.nets.minus === ground &&
      (input === undefined || p.nets.plus === input) &&
      (p.values.ac !== 0 || p.model !== undefined),
  );
  if (sources.length > 1 && input === undefined)
    throw new ReedError(
      'circuit',
      `Several sources drive the circuit (${sources.map((s) => quoted(s.id)).join(', ')}): name the net that is the input.`,
    );
  return sources[0];
}

function named(circuit: Circuit, net: string, what: string): string {
  if (netsOf(circuit).includes(net)) return net;
  throw new ReedError(
    'circuit',
    `The circuit has no net called “${net}”: name the net that is its ${what}.`,
  );
}

/** Ids that a drawing can carry, each once. */
function shortIds(parts: readonly TakenPart[]): Map<string, string> {
  const used = new Set<string>();
  const ids = new Map<string, string>();
  for (const { id } of parts) {
    const short = cut(id.replaceAll('/', '-'), 36);
    let own = short;
    for (let n = 2; used.has(own); n++) own = `${short}-${n}`;
    used.add(own);
    ids.set(id, own);
  }
  return ids;
}
