import { isPort, pinsOf, isPart, type Point } from '@/core/drawing/drawing';
import type { Place } from '@/core/drawing/grow/change';
import { partKindOf } from '@/core/parts';
import { netsOfDrawing } from '@/core/topologies/instantiate';
import type { Stage } from './schema';
import { drawingOf } from './stage';

/** A point of a stage's circuit that something can be joined to. */
export interface NamedPlace {
  place: Place;
  net: string;
  /** What it is called in a sentence. */
  name: string;
  /** Everything it may be looked for by. */
  aliases: string[];
  /** Where it is drawn: a pin of it. */
  at: Point;
  /** Pins that lead there; one alone is an open end. */
  pins: number;
}

/** Every net of a stage but ground, those with names of their own first. */
export function placesOf(stage: Stage): NamedPlace[] {
  const drawing = drawingOf(stage);
  const nets = netsOfDrawing(drawing);
  const found = new Map<string, NamedPlace & { words: string[] }>();
  const at = (net: string, place: Place, point: Point) => {
    let known = found.get(net);
    if (!known)
      found.set(
        net,
        (known = { place, net, name: '', aliases: [], at: point, pins: 0, words: [] }),
      );
    return known;
  };
  for (const symbol of drawing.symbols)
    for (const { terminal, at: point } of pinsOf(symbol)) {
      const net = nets.netAt(point);
      if (net === undefined || net === '0') continue;
      if (isPart(symbol)) {
        const own = at(net, { part: symbol.id, pin: terminal }, point);
        own.pins++;
        own.aliases.push(`${symbol.id} ${terminal}`, `${symbol.id}.${terminal}`);
        const two = partKindOf(symbol.kind).symbol.words === 'along';
        own.words.push(two && terminal.length === 1 ? symbol.id : `${symbol.id} ${terminal}`);
      } else if ('name' in symbol) {
        const own = at(net, { net }, point);
        if (isPort(symbol)) own.pins++;
        own.name ||= symbol.name;
        own.aliases.push(symbol.name);
      }
    }
  const isDevice = (word: string) => word.includes(' ');
  return [...found.values()]
    .map(({ words, ...place }) => {
      // A device's pin says more than a resistor's end.
      const best = [...words].sort((a, b) => Number(isDevice(b)) - Number(isDevice(a)));
      const name =
        place.name ||
        (isDevice(best[0])
          ? best[0]
          : place.pins === 1
            ? `open end of ${best[0]}`
            : best.slice(0, 2).join('–'));
      return { ...place, name };
    })
    .sort((a, b) => Number(b.aliases.includes(b.name)) - Number(a.aliases.includes(a.name)));
}
