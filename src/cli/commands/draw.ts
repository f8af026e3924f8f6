import { drawn } from '@/core/drawing/grow/layout';
import type { PartLabel } from '@/core/drawing/labels';
import { readNets } from '@/core/drawing/nets';
import { schematicSvg } from '@/core/formats/schematic-svg';
import { partKindOf } from '@/core/parts';
import { mainQuantity, printPart } from '@/core/parts/quantities';
import { takeCircuit, type TakenPart } from '@/core/parts/take-circuit';
import { readArgs, readCircuitFile, required, writeOut, type Command } from '../command';

/** A circuit drawn by itself. */
export const draw: Command = {
  name: 'draw',
  usage: 'CIRCUIT --out FILE.svg',
  summary: 'a schematic of a circuit, and the nets read back off it',
  run(args) {
    const { values, positionals } = readArgs(args, { out: { type: 'string' } }, 1);
    const out = required('out', values.out);
    const circuit = readCircuitFile(positionals[0]);
    const parts = takeCircuit(circuit);
    const drawing = drawn({ parts, ports: [], ground: circuit.ground });
    const labels = Object.fromEntries(parts.map((p) => [p.id, labelOf(p)]));
    writeOut(out, schematicSvg(drawing, labels, { title: circuit.title }));
    return { out, drawing, nets: readBack(drawing, parts, circuit.ground) };
  },
};

function labelOf({ id, kind, values }: TakenPart): PartLabel {
  const main = mainQuantity(partKindOf(kind));
  return main ? { name: id, value: printPart(main, values[main.name]) } : { name: id };
}

/** The net at every pin as the drawing says it, under the circuit's names. */
function readBack(
  drawing: Parameters<typeof readNets>[0],
  parts: readonly TakenPart[],
  ground: string,
): Record<string, Record<string, string>> {
  const names = new Map<string, string>([['0', ground]]);
  const read = readNets(drawing).parts;
  for (const { id, nets } of read)
    for (const [pin, net] of Object.entries(nets)) {
      const own = parts.find((p) => p.id === id)!.nets[pin];
      if (!names.has(net)) names.set(net, own);
    }
  return Object.fromEntries(
    read.map(({ id, nets }) => [
      id,
      Object.fromEntries(Object.entries(nets).map(([pin, net]) => [pin, names.get(net)!])),
    ]),
  );
}
