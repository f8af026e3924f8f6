import { deviceOf } from '@/core/circuit/devices';
import { partSchema } from '@/core/circuit/schema';
import { compile } from '@/core/circuit/compile';
import { makeCircuit } from '@/core/circuit/schema';
import { isPart, pinsOf, type PartOnPaper } from '@/core/drawing/drawing';
import { sketch } from '@/core/drawing/sketch';
import { PART_KINDS, partKindOf, numberedName } from '.';
import { FACINGS } from './geometry';
import type { PartKind, PartToBuild } from './part-kind';
import { quantityProblem, usualValues } from './quantities';

/** A new part of a kind with a net of its own at each pin, optional ones left out or not. */
function usualPart(kind: PartKind, optional: boolean): PartToBuild {
  const pins = kind.symbol.pins.filter((p) => optional || !p.optional);
  return {
    id: 'X1',
    nets: Object.fromEntries(pins.map((p) => [p.name, `net-${p.name}`])),
    values: usualValues(kind),
    ...(kind.models?.[0] ? { model: kind.models[0].model } : {}),
    ground: '0',
  };
}

describe.each(PART_KINDS.map((k) => [k.kind, k] as const))('%s', (_, kind) => {
  test('has pins on the grid, apart from each other, the first at the corner', () => {
    const places = kind.symbol.pins.map((p) => `${p.at[0]},${p.at[1]}`);
    expect(places[0]).toBe('0,0');
    expect(new Set(places).size).toBe(places.length);
    for (const { at } of kind.symbol.pins) expect(at.every(Number.isInteger)).toBe(true);
  });

  test('lines leave its pins away from its body', () => {
    const inside = kind.symbol.body;
    const middle = [0, 1].map((k) => inside.reduce((t, p) => t + p[k], 0) / inside.length);
    const steps = { right: [1, 0], left: [-1, 0], up: [0, -1], down: [0, 1] };
    for (const { at, leaves } of kind.symbol.pins) {
      const [dx, dy] = steps[leaves];
      const far = Math.hypot(at[0] + dx - middle[0], at[1] + dy - middle[1]);
      expect(far).toBeGreaterThan(Math.hypot(at[0] - middle[0], at[1] - middle[1]));
    }
  });

  test.each([false, true])('becomes parts that circuits know, optional pins: %s', (optional) => {
    const part = usualPart(kind, optional);
    const parts = kind.become(part);
    for (const made of parts) expect(partSchema.safeParse(made).error).toBeUndefined();
    expect(new Set(parts.map((p) => p.id)).size).toBe(parts.length);
    const joined = new Set(parts.flatMap((p) => Object.values(deviceOf(p.kind).terminals(p))));
    for (const net of Object.values(part.nets)) expect(joined).toContain(net);
    expect(compile(makeCircuit(parts)).unknowns.length).toBeGreaterThan(0);
  });

  test.each([false, true])('is taken back from a circuit, optional pins: %s', (optional) => {
    const part = usualPart(kind, optional);
    const [made, ...others] = kind.become(part);
    const takers = PART_KINDS.filter((k) => k.take(made, '0'));
    if (others.length > 0) return;
    expect(takers[0]?.kind).toBe(kind.kind);
    const taken = kind.take(made, '0')!;
    expect(kind.become({ id: 'X1', ground: '0', ...taken, values: { ...taken.values } })).toEqual([
      made,
    ]);
  });

  test('offers models that pass its own check, and usual numbers within their bounds', () => {
    for (const { model } of kind.models ?? [])
      expect(kind.model?.safeParse(model).success).toBe(true);
    for (const q of kind.quantities) expect(quantityProblem(q, q.usual)).toBeNull();
  });

  test('keeps its pins apart however it lies', () => {
    for (const toward of FACINGS)
      for (const mirrored of [false, true]) {
        const part: PartOnPaper = { kind: kind.kind, id: 'X', at: [20, 20], toward, mirrored };
        const places = pinsOf(part).map((p) => p.at.join());
        expect(new Set(places).size).toBe(places.length);
      }
  });

  test('is drawn by a sketch that says its word', () => {
    const word = kind.noun.replaceAll(' ', '-');
    const [symbol] = sketch(`${word} ${kind.letter}1 3,4 down`).symbols;
    expect(symbol).toMatchObject({ kind: kind.kind, id: `${kind.letter}1`, toward: 'down' });
    expect(isPart(symbol)).toBe(true);
  });
});

test('kinds and their words are each there once', () => {
  for (const key of ['kind', 'noun'] as const)
    expect(new Set(PART_KINDS.map((k) => k[key])).size).toBe(PART_KINDS.length);
});

test('a line leaves a pin of a part on its side, as the part lies', () => {
  const leaves = (lie: Partial<PartOnPaper>) =>
    pinsOf({ kind: 'npn-transistor', id: 'Q1', at: [0, 0], ...lie }).map((p) => p.leaves);
  expect(leaves({})).toEqual(['left', 'up', 'down']);
  expect(leaves({ mirrored: true })).toEqual(['left', 'down', 'up']);
  expect(leaves({ toward: 'down' })).toEqual(['up', 'right', 'left']);
  expect(leaves({ toward: 'left', mirrored: true })).toEqual(['right', 'up', 'down']);
});

test('a flipped amplifier keeps its corner at the upper input', () => {
  const [plus, minus, out] = pinsOf({ kind: 'op-amp', id: 'A1', at: [4, 6], mirrored: true });
  expect([plus.at, minus.at, out.at]).toEqual([
    [4, 8],
    [4, 6],
    [8, 7],
  ]);
});

test('names are counted letter by letter', () => {
  const counts = new Map<string, number>();
  const kinds = ['resistor', 'diode', 'light-emitting-diode', 'resistor'];
  expect(kinds.map((k) => numberedName(counts, k))).toEqual(['R1', 'D1', 'D2', 'R2']);
  expect(() => partKindOf('teapot')).toThrow(/teapot/);
});
