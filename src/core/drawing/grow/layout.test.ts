import { bodiesOf, overlap } from '../shapes';
import { placeLabels, textBox } from '../labels';
import { randomCircuit } from '../testing/random-circuit';
import type { Drawing } from '../drawing';
import { groupsOf, sameGroups, type PinName } from './groups';
import { drawn, type NetList } from './layout';

/** The nets of a list as pins that are joined. */
function wantedGroups({ parts, ports, ground }: NetList): PinName[][] {
  const groups = new Map<string, PinName[]>();
  const put = (net: string, pin: PinName) => groups.set(net, [...(groups.get(net) ?? []), pin]);
  for (const { id, nets } of parts)
    for (const [pin, net] of Object.entries(nets)) put(net, `${id}.${pin}`);
  for (const { name, net } of ports) put(net, `:${name}`);
  groups.get(ground)?.push('0');
  return [...groups.values()];
}

function overlaps(drawing: Drawing): number {
  const bodies = bodiesOf(drawing, 22);
  return bodies.reduce((n, a, i) => n + bodies.slice(i + 1).filter((b) => overlap(a, b)).length, 0);
}

const RUNS = 20;

test.each(Array.from({ length: RUNS }, (_, n) => 1000 + n))(
  'random circuit %i: the drawing says exactly its nets, and nothing covers anything',
  (seed) => {
    const circuit = randomCircuit(seed);
    const drawing = drawn(circuit);
    expect(sameGroups(groupsOf(drawing), wantedGroups(circuit))).toBe(true);
    expect(overlaps(drawing)).toBe(0);
    const labels = Object.fromEntries(
      circuit.parts.map((p) => [p.id, { name: p.id, value: '4k7' }]),
    );
    const { parts } = placeLabels(drawing, labels, 22);
    // Words never cover each other; hardly one finds no place.
    const boxes = [...parts.values()].flat().map(textBox);
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1))
        expect(
          a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top,
        ).toBe(true);
    expect(parts.size).toBeGreaterThanOrEqual(Math.floor(0.85 * circuit.parts.length));
  },
);

const r = (id: string, a: string, b: string) => ({ id, kind: 'resistor', nets: { a, b } });
const c = (id: string, a: string, b: string) => ({ id, kind: 'capacitor', nets: { a, b } });

test('a divider reads from left to right, and stands on its ground', () => {
  const drawing = drawn({
    parts: [r('R1', 'in', 'mid'), c('C1', 'mid', '0')],
    ports: [
      { name: 'in', flow: 'in', net: 'in', main: true },
      { name: 'out', flow: 'out', net: 'mid', main: true },
    ],
    ground: '0',
  });
  const at = (what: string) =>
    drawing.symbols.find((s) => ('id' in s ? s.id : 'name' in s ? s.name : s.kind) === what)!.at;
  expect(at('in')[0]).toBeLessThan(at('R1')[0]);
  expect(at('R1')[0]).toBeLessThan(at('C1')[0]);
  expect(at('C1')[0]).toBeLessThan(at('out')[0]);
  expect(at('C1')[1]).toBeLessThan(at('ground')[1]);
});

test('a supply hangs over what it feeds', () => {
  const drawing = drawn({
    parts: [
      c('C1', 'in', 'b'),
      { id: 'Q1', kind: 'npn-transistor', nets: { base: 'b', collector: 'c', emitter: 'e' } },
      r('R1', 'vcc', 'c'),
      r('R2', 'vcc', 'b'),
      r('R3', 'e', '0'),
      { id: 'V1', kind: 'supply', nets: { plus: 'vcc' } },
    ],
    ports: [
      { name: 'in', flow: 'in', net: 'in', main: true },
      { name: 'out', flow: 'out', net: 'c', main: true },
    ],
    ground: '0',
  });
  const y = (id: string) => drawing.symbols.find((s) => 'id' in s && s.id === id)!.at[1];
  expect(y('V1')).toBeLessThan(y('Q1'));
  expect(y('V1')).toBeLessThanOrEqual(Math.min(y('R1'), y('R2')) + 1);
});
