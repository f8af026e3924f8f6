import { PART_KINDS } from '@/core/parts';
import { seededRandom } from '@/core/random';
import type { NetList } from '../grow/layout';

/**
 * A circuit of random parts, all joined somehow: most nets are shared by a few pins, some by many,
 * and many lead to ground.
 */
export function randomCircuit(seed: number, most = 30): NetList {
  const random = seededRandom(seed);
  const below = (n: number) => Math.floor(random() * n);
  const count = 2 + below(most - 1);
  const kinds = PART_KINDS.flatMap((k) => {
    const times = k.symbol.words === 'along' ? 6 : 1;
    return Array.from({ length: times }, () => k);
  });
  const nets = ['in'];
  const parts = Array.from({ length: count }, (_, n) => {
    const kind = kinds[below(kinds.length)];
    const pins = kind.symbol.pins.filter((p) => !p.optional || random() < 0.3);
    const own: Record<string, string> = {};
    pins.forEach((pin, i) => {
      const dice = random();
      // The first pin holds the circuit together.
      if (i === 0) own[pin.name] = nets[Math.max(0, nets.length - 1 - below(4))];
      else if (dice < 0.25) own[pin.name] = '0';
      else if (dice < 0.6 || nets.length > count) own[pin.name] = nets[below(nets.length)];
      else nets.push((own[pin.name] = `n${nets.length}`));
    });
    return { id: `${kind.letter}${n + 1}`, kind: kind.kind, nets: own };
  });
  return {
    parts,
    ports: [
      { name: 'in', flow: 'in', net: 'in', main: true },
      { name: 'out', flow: 'out', net: nets[nets.length - 1], main: true },
    ],
    ground: '0',
  };
}
