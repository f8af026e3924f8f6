import type { DrawnPart } from '@/core/drawing/nets';
import { netsOfTopology } from './instantiate';
import type { Topology } from './topology';

/** Resistors and capacitors change places in a mirror twin: what passed below passes above. */
const EXCHANGED: Readonly<Record<string, string>> = {
  resistor: 'capacitor',
  capacitor: 'resistor',
};

/** Rounds after which nets that stand differently in a circuit have different names. */
const ROUNDS = 8;

/** What nets of a topology's drawing are called from outside. */
const PORTS = new Set(['in', 'out', '0']);

/**
 * How a circuit is joined, as a text that does not depend on the names of its parts and nets: nets
 * are told apart by what stands on them, and that by the nets it leads to, round after round
 * (B. Weisfeiler, A. Leman, "The reduction of a graph to canonical form", 1968).
 *
 * @param exchange resistors for capacitors and capacitors for resistors
 */
function joinedAs(topology: Topology, exchange: boolean): string {
  const { parts, nets } = netsOfTopology(topology);
  const held = heldNets(topology);
  const kindOf = (part: DrawnPart) =>
    exchange && !Object.values(part.nets).some((net) => held.has(net))
      ? (EXCHANGED[part.kind] ?? part.kind)
      : part.kind;
  let colours = new Map(nets.map((net) => [net, PORTS.has(net) ? net : '']));
  colours.set('0', '0');
  const written = (part: DrawnPart): string => {
    const pins = Object.entries(part.nets).map(([pin, net]) => [pin, colours.get(net) ?? '']);
    // Either end of a two-ended part is as good as the other.
    const ends = pins.length === 2 ? pins.map(([, c]) => c).sort() : pins.map((p) => p.join('='));
    return `${kindOf(part)}(${ends.join(',')})`;
  };
  for (let round = 0; round < ROUNDS; round++) {
    const next = new Map(colours);
    for (const net of nets) {
      const on = parts
        .flatMap((part) =>
          Object.entries(part.nets)
            .filter(([, its]) => its === net)
            .map(([pin]) => `${Object.keys(part.nets).length === 2 ? '' : pin}${written(part)}`),
        )
        .sort();
      next.set(net, digest(`${colours.get(net) ?? ''}[${on.join(' ')}]`));
    }
    colours = next;
  }
  return parts.map(written).sort().join(' ');
}

/**
 * Nets that a plain divider of resistors holds: an inverting input that no capacitor stands on. What
 * sets a gain alike at all frequencies stays what it is.
 */
function heldNets(topology: Topology): Set<string> {
  const { parts } = netsOfTopology(topology);
  const bare = (net: string) =>
    !parts.some((p) => p.kind === 'capacitor' && Object.values(p.nets).includes(net));
  return new Set(
    parts.flatMap(({ nets: { inMinus, out } }) =>
      inMinus !== undefined && inMinus !== out && bare(inMinus) ? [inMinus] : [],
    ),
  );
}

/** A short name for a long text; two texts hardly ever share one (FNV-1a, twice 32 bits). */
function digest(text: string): string {
  let [a, b] = [0x811c9dc5, 0x01234567];
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x01000193);
    b = Math.imul(b ^ text.charCodeAt(i), 0x5bd1e995);
  }
  return `${(a >>> 0).toString(36)}.${(b >>> 0).toString(36)}`;
}

const texts = new WeakMap<Topology, { own: string; exchanged: string }>();

function textsOf(topology: Topology) {
  let found = texts.get(topology);
  if (!found) {
    found = { own: joinedAs(topology, false), exchanged: joinedAs(topology, true) };
    texts.set(topology, found);
  }
  return found;
}

/** Whether one topology is the other with resistors and capacitors exchanged, and does the opposite. */
export const mirrorOf = (a: Topology, b: Topology): boolean =>
  a.kind !== b.kind &&
  a.order === b.order &&
  a.drawing !== b.drawing &&
  textsOf(a).exchanged === textsOf(b).own;
