import type { Drawing } from '../drawing';
import { readNets } from '../nets';

/** A pin of a part, or a port, as one word: “R1.a”, “:in”. */
export type PinName = string;

export const pinName = (part: string, pin: string): PinName => `${part}.${pin}`;
export const portName = (port: string): PinName => `:${port}`;
export const GROUND_PIN: PinName = '0';

/** Which pins and ports a drawing joins, each net as a sorted list; ground is a member of its net. */
export function groupsOf(drawing: Drawing): PinName[][] {
  const nets = readNets(drawing);
  const groups = new Map<string, PinName[]>();
  const put = (net: string, pin: PinName) => groups.set(net, [...(groups.get(net) ?? []), pin]);
  for (const { id, nets: own } of nets.parts)
    for (const [pin, net] of Object.entries(own)) put(net, pinName(id, pin));
  for (const { name, net } of nets.ports) put(net, portName(name));
  for (const [net, pins] of groups) {
    if (net === '0') pins.push(GROUND_PIN);
    pins.sort();
  }
  return [...groups.values()];
}

/** Whether two lists of nets join the same pins. */
export function sameGroups(a: readonly PinName[][], b: readonly PinName[][]): boolean {
  const words = (groups: readonly PinName[][]) => groups.map((g) => [...g].sort().join(' ')).sort();
  const [wa, wb] = [words(a), words(b)];
  return wa.length === wb.length && wa.every((w, i) => w === wb[i]);
}
