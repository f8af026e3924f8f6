import type { Part } from '@/core/circuit/schema';
import { AMP_NET, GROUND_NET } from '@/core/speaker/document';
import { driverEnd, type CrossoverDesign } from '../crossover-design';
import { drawnNames } from '../network-drawing';
import { speakerOf } from '../speaker-of';

/** Ends that are joined in one point. */
export interface Joint {
  /** What it is: the amplifier’s plus, the common return, or a number. */
  name: string;
  ends: string[];
}

/** Two-ended parts that are soldered. */
const endsOf = (part: Part): readonly string[] =>
  part.kind === 'resistor' || part.kind === 'capacitor' || part.kind === 'inductor'
    ? [part.a, part.b]
    : [];

/**
 * What is joined to what, from the amplifier to the drivers: every point of the network with all ends
 * that meet there. A piece of wire in the circuit makes two points one.
 */
export function wiringOf(design: CrossoverDesign): Joint[] {
  const { network, connections } = speakerOf(design, 'nominal');
  const names = drawnNames(design);
  const one = new Map<string, string>();
  const of = (net: string): string => (one.has(net) ? of(one.get(net)!) : net);
  for (const part of network)
    if (part.kind === 'voltage-source') {
      const [a, b] = [of(part.plus), of(part.minus)];
      if (a !== b) one.set(b === AMP_NET ? a : b, b === AMP_NET ? b : a);
    }
  const ends = new Map<string, string[]>([
    [AMP_NET, ['amplifier +']],
    [GROUND_NET, ['amplifier −']],
  ]);
  const put = (net: string, end: string) => ends.set(of(net), [...(ends.get(of(net)) ?? []), end]);
  for (const part of network) {
    const name = names.get(part.id);
    if (name !== undefined) for (const net of endsOf(part)) put(net, name);
  }
  design.ways.forEach((way, i) => {
    const { plus, minus } = connections[i];
    const { name } = driverEnd(way);
    put(plus, `${name} +`);
    put(minus, `${name} −`);
  });
  let n = 0;
  const [amp, ground, ...inner] = [...ends];
  return [
    { name: 'From the amplifier', ends: amp[1] },
    ...inner.map(([, list]) => ({ name: `Point ${++n}`, ends: list })),
    { name: 'Common return', ends: ground[1] },
  ];
}
