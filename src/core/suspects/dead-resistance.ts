import { trackPart } from '@/core/circuit/devices/potentiometer';
import { netsOf, type Circuit } from '@/core/circuit/schema';
import { Cholesky } from '@/core/numeric/cholesky';

/** What an ohmmeter finds between two nets of a board without power. */
export interface DeadResistance {
  between: [string, string];
  ohms: number;
}

/** What is more is open to a meter, and what is less a wire. */
const OPEN_OHMS = 20e6;
const WIRE_OHMS = 0.05;
/** Every net is held by this, so that what hangs free has a place. */
const STRAY_OHMS = 1e11;
/** Of more nets than these, not every pair is measured. */
const MOST_NETS = 60;

/**
 * Resistances between all nets with the power off: of resistors, tracks and windings alone. Capacitors
 * are open when they have charged, and what junctions of dead semiconductors do is left out: a meter
 * that drives less than they begin to conduct at sees none of them.
 *
 * @param off how far parts are off, as logarithms
 * @returns by a key of the two nets; pairs that are open or joined are left out
 */
export function deadResistances(
  circuit: Circuit,
  off: ReadonlyMap<string, number>,
): Map<string, DeadResistance> {
  const nets = [circuit.ground, ...netsOf(circuit)].slice(0, MOST_NETS);
  const between = resistancesOf(circuit, off, nets);
  const found = new Map<string, DeadResistance>();
  if (!between) return found;
  for (let i = 0; i < nets.length; i++)
    for (let j = i + 1; j < nets.length; j++) {
      const ohms = between(i, j);
      if (ohms > OPEN_OHMS || ohms < WIRE_OHMS) continue;
      found.set(`${i} ${j}`, { between: [nets[i], nets[j]], ohms });
    }
  return found;
}

/**
 * What an ohmmeter finds between two nets of a board without power; Infinity where it is open, and 0
 * where a wire joins them.
 *
 * @param off how far parts are off, as logarithms
 */
export function deadOhms(
  circuit: Circuit,
  a: string,
  b: string,
  off: ReadonlyMap<string, number> = new Map(),
): number {
  const nets = [...new Set([circuit.ground, ...netsOf(circuit)])];
  const ohms = resistancesOf(circuit, off, nets)?.(nets.indexOf(a), nets.indexOf(b));
  if (ohms === undefined || ohms > OPEN_OHMS) return Infinity;
  return ohms < 2 * WIRE_OHMS ? 0 : ohms;
}

/** Resistances by the places of two nets; nothing where they cannot be told. */
function resistancesOf(
  circuit: Circuit,
  off: ReadonlyMap<string, number>,
  nets: readonly string[],
): ((i: number, j: number) => number) | undefined {
  const place = new Map(nets.map((net, i) => [net, i]));
  const size = nets.length;
  const g = new Float64Array(size * size);
  for (let i = 0; i < size; i++) g[i * (size + 1)] = 1 / STRAY_OHMS;
  for (const { a, b, ohms } of conductors(circuit, off)) {
    const [i, j] = [place.get(a), place.get(b)];
    if (i === undefined || j === undefined || i === j) continue;
    const siemens = 1 / Math.max(WIRE_OHMS, ohms);
    g[i * (size + 1)] += siemens;
    g[j * (size + 1)] += siemens;
    g[i * size + j] -= siemens;
    g[j * size + i] -= siemens;
  }
  const inverse = Cholesky.of(g, size)?.inverse();
  return (
    inverse &&
    ((i, j) => inverse[i * (size + 1)] + inverse[j * (size + 1)] - 2 * inverse[i * size + j])
  );
}

function* conductors(
  { parts }: Circuit,
  off: ReadonlyMap<string, number>,
): Generator<{ a: string; b: string; ohms: number }> {
  for (const part of parts) {
    const factor = Math.exp(off.get(part.id) ?? 0);
    switch (part.kind) {
      case 'resistor':
        yield { a: part.a, b: part.b, ohms: part.ohms * factor };
        break;
      case 'inductor':
        yield { a: part.a, b: part.b, ohms: part.dcrOhms ?? 0 };
        break;
      case 'potentiometer': {
        const ohms = part.ohms * factor;
        const { part: toA } = trackPart(part);
        yield { a: part.a, b: part.wiper, ohms: ohms * toA };
        yield { a: part.wiper, b: part.b, ohms: ohms * (1 - toA) };
        break;
      }
      default:
    }
  }
}
