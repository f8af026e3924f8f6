import { isName, isPort, type Drawing } from '@/core/drawing/drawing';
import { nameNet } from '@/core/drawing/grow/change';
import { drawn } from '@/core/drawing/grow/layout';
import { readNets, type DrawnPart } from '@/core/drawing/nets';

/**
 * The same circuit drawn anew; names of nets stay where their nets are.
 *
 * @param change what else is to be in it, and what no more
 */
export function tidied(
  drawing: Drawing,
  change: (parts: readonly DrawnPart[]) => DrawnPart[] = (parts) => [...parts],
): Drawing {
  const nets = readNets(drawing);
  const parts = change(nets.parts);
  const fresh = drawn({
    parts,
    ports: drawing.symbols.filter(isPort).map(({ name, flow, net }) => ({
      name,
      flow,
      net: nets.ports.find((p) => p.name === name)!.net,
      ...(net === flow ? { main: true as const } : {}),
    })),
    ground: '0',
  });
  return drawing.symbols.filter(isName).reduce((made, { name, at }) => {
    const net = nets.netAt(at);
    const part = parts.find((p) => Object.values(p.nets).includes(net ?? ''));
    const pin = part && Object.entries(part.nets).find(([, n]) => n === net)?.[0];
    return part && pin ? nameNet(made, { part: part.id, pin }, name) : made;
  }, fresh);
}
