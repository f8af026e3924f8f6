import { isPart, isPort, type Drawing } from '../drawing';
import { readNets } from '../nets';
import { randomCircuit } from '../testing/random-circuit';
import { markOutput, movePart, partIn, standOf } from './change';
import { groupsOf, sameGroups } from './groups';
import { drawn } from './layout';

const sameCircuit = (a: Drawing, b: Drawing) => sameGroups(groupsOf(a), groupsOf(b));

/** Whatever can be done without room for it is refused in words, and changes nothing. */
function attempted(act: () => Drawing): Drawing | undefined {
  try {
    return act();
  } catch (error) {
    expect((error as Error).message).toMatch(/no room/i);
    return undefined;
  }
}

test.each([1, 2, 3, 4, 5, 6])('parts of drawing %i moved and turned: the same circuit', (seed) => {
  let drawing = drawn(randomCircuit(seed, 8));
  const parts = drawing.symbols.filter(isPart).map((s) => s.id);
  let moved = 0;
  for (const [i, id] of parts.entries()) {
    const before = partIn(drawing, id);
    for (const change of ['turned', { by: [3 - i, 4] }] as const) {
      const to = standOf(partIn(drawing, id), change);
      const next = attempted(() => movePart(drawing, id, to));
      if (!next) continue;
      moved++;
      const now = partIn(next, id);
      expect([now.at, now.toward ?? 'right']).toEqual([to.at, to.toward ?? 'right']);
      expect(sameCircuit(next, drawing)).toBe(true);
      // Nobody else was moved.
      for (const other of parts.filter((p) => p !== id))
        expect(partIn(next, other)).toEqual(partIn(drawing, other));
      drawing = next;
    }
    expect(partIn(drawing, id).kind).toBe(before.kind);
  }
  expect(moved).toBeGreaterThanOrEqual(Math.floor(parts.length / 3));
});

test('four quarter turns come back to where they began', () => {
  const stand = { at: [3, 4] as const };
  const turned = [1, 2, 3, 4].reduce<ReturnType<typeof standOf>>(
    (s) => standOf(s, 'turned'),
    stand,
  );
  expect(turned).toEqual({ at: [3, 4], toward: 'right' });
  expect(standOf(turned, { by: [-1, 2] })).toEqual({ at: [2, 6], toward: 'right' });
});

test('an output is marked at a point and taken away again; the main one stays', () => {
  const drawing = drawn(randomCircuit(3, 8));
  const [part] = drawing.symbols.filter(isPart);
  const [pin] = Object.keys(readNets(drawing).parts.find((p) => p.id === part.id)!.nets);
  const place = { part: part.id, pin };
  const marked = markOutput(drawing, place, 'tap');
  const outputs = (d: Drawing) => readNets(d).ports.filter((p) => p.flow === 'out');
  expect(outputs(marked).map((p) => p.name)).toEqual(['out', 'tap']);
  const nets = readNets(marked);
  const its = nets.parts.find((p) => p.id === part.id)!.nets[pin];
  expect(nets.ports.find((p) => p.name === 'tap')!.net).toBe(its);
  expect(() => markOutput(marked, place, 'tap')).toThrow(/“tap” already/);
  expect(() => markOutput(marked, place, 'out')).toThrow(/“out” already/);
  const bare = markOutput(marked, place, '');
  expect(outputs(bare).map((p) => p.name)).toEqual(['out']);
  expect(bare.symbols.filter(isPort)).toHaveLength(drawing.symbols.filter(isPort).length);
  expect(sameCircuit(bare, drawing)).toBe(true);
});
