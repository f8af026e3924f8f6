import { deviceOf } from '@/core/circuit/devices';
import type { Circuit } from '@/core/circuit/schema';

/**
 * Parts that load each other, by their places in the list given: those that hang together by nets
 * which nothing holds. An output of an op-amp or a source ends a block, as ground does; what such
 * blocks do to a level adds up in decibels, or very nearly.
 */
export function blocksOf(circuit: Circuit, parts: readonly string[]): number[][] {
  const held = new Set([circuit.ground]);
  for (const part of circuit.parts)
    for (const net of deviceOf(part.kind).holds?.(part) ?? []) held.add(net);
  const groups = new Map<string, string>();
  const rootOf = (name: string): string => {
    const above = groups.get(name) ?? name;
    if (above === name) return name;
    const root = rootOf(above);
    groups.set(name, root);
    return root;
  };
  const byId = new Map(circuit.parts.map((p) => [p.id, p]));
  for (const part of circuit.parts) {
    if (part.kind === 'coupling') {
      const [a, b] = part.inductors;
      groups.set(rootOf(`part ${a}`), rootOf(`part ${b}`));
      continue;
    }
    for (const net of Object.values(deviceOf(part.kind).terminals(part)))
      if (!held.has(net) && deviceOf(part.kind).passive)
        groups.set(rootOf(`part ${part.id}`), rootOf(`net ${net}`));
  }
  const blocks = new Map<string, number[]>();
  parts.forEach((id, i) => {
    if (!byId.has(id)) return;
    const root = rootOf(`part ${id}`);
    const block = blocks.get(root);
    if (block) block.push(i);
    else blocks.set(root, [i]);
  });
  return [...blocks.values()];
}
