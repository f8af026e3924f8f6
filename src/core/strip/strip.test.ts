import fc from 'fast-check';
import { circuitOfPlan } from '@/core/cells/build';
import { cellOf } from '@/core/cells';
import { makeCircuit } from '@/core/circuit/schema';
import { SOURCE, UNIT_SOURCE } from '@/core/circuit/unit-source';
import { toItsEnd } from '@/core/to-its-end';
import { holesUnder, keyOf, partsOver, type Board, type Component, type Standing } from './board';
import { boardFaults, holeWords } from './check';
import { componentsOf } from './components';
import { costOf, planned, wiredBoard } from './plan';

const REQUEST = {
  beyond: new Set([SOURCE]),
  outside: new Map([
    ['in', 'in'],
    ['out', 'out'],
  ]),
};

const RC = componentsOf(
  makeCircuit([
    UNIT_SOURCE,
    { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 1e3 },
    { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 1e-7 },
  ]),
  REQUEST,
);

const ofCell = (id: string): Component[] => {
  const cell = cellOf(id)!;
  const plan = cell.plan(cell.usual);
  return componentsOf(
    circuitOfPlan(
      cell,
      plan,
      plan.controls.map((c) => c.at),
    ),
    REQUEST,
  );
};

test('what is soldered, and the wires that lead to it', () => {
  expect(RC.map((c) => c.id).sort()).toEqual(['C1', 'R1', 'wire ground', 'wire in', 'wire out']);
  const box = ofCell('nine-volt-box');
  const amplifier = box.find((c) => c.id === 'A1')!;
  expect(amplifier.pins.map((p) => p.name)).toEqual([
    'pin 1',
    'inMinus',
    'inPlus',
    'supplyMinus',
    'bias',
    'out',
    'supplyPlus',
    'pin 8',
  ]);
  // Supplies that the circuit takes for granted, and the control’s voltage.
  expect(box.map((c) => c.id)).toEqual(expect.arrayContaining(['wire V+', 'wire V−']));
  expect(() =>
    componentsOf(
      makeCircuit([
        UNIT_SOURCE,
        {
          id: 'E1',
          kind: 'voltage-amplifier',
          plus: 'out',
          minus: '0',
          inPlus: 'in',
          inMinus: '0',
          gain: 2,
        },
      ]),
      REQUEST,
    ),
  ).toThrow(/“E1” is an ideal voltage-amplifier/);
});

describe('a board laid by hand', () => {
  const at = (row: number, col: number, span = 0, turn: Standing['turn'] = 0): Standing => ({
    at: { row, col },
    turn,
    span,
  });
  // In, out and ground on three strips, the parts across them.
  const parts = {
    R1: at(0, 2, 2),
    C1: at(2, 4, 2),
    'wire in': at(0, 0),
    'wire out': at(2, 6),
    'wire ground': at(4, 6),
  };
  const board: Board = { rows: 5, cols: 8, parts, cuts: [], links: [] };

  test('is right where its copper joins what the circuit does', () => {
    expect(boardFaults(RC, board)).toEqual([]);
    expect(wiredBoard(RC, board)).toEqual(board);
  });

  test.each<[string, Partial<Board>, RegExp]>([
    [
      'two in one hole',
      { parts: { ...parts, 'wire in': at(0, 2) } },
      /want the same hole: row 1, hole 3/,
    ],
    ['a short', { parts: { ...parts, C1: at(0, 4, 2) } }, /are joined and must not be/],
    ['a part beside it', { parts: { ...parts, 'wire out': at(2, 9) } }, /stands beside the board/],
    ['a cut in the way', { cuts: [{ row: 2, col: 3 }] }, /must be joined \(“out”\) and are not/],
    ['a cut at a pin', { cuts: [{ row: 2, col: 4 }] }, /is at a soldered hole/],
    [
      'a wrong link',
      { links: [{ from: { row: 0, col: 7 }, to: { row: 4, col: 7 }, net: 'in' }] },
      /joined and must not be/,
    ],
  ])('%s is found', (_, change, words) => {
    const faults = boardFaults(RC, { ...board, ...change });
    expect(faults.map((f) => f.words).join(' ')).toMatch(words);
    for (const { holes } of faults) expect(holeWords(holes[0])).toMatch(/row \d+, hole \d+/);
  });
});

test('a link beneath a part is told by the part', () => {
  const parts = {
    R1: { at: { row: 0, col: 2 }, turn: 0, span: 6 },
    C1: { at: { row: 3, col: 0 }, turn: 3, span: 4 },
  } satisfies Board['parts'];
  const standing = RC.filter((c) => c.id in parts);
  const across = { from: { row: 1, col: 1 }, to: { row: 5, col: 1 } };
  expect(partsOver(across, standing, parts)).toEqual(['C1']);
  expect(partsOver({ ...across, to: { row: 2, col: 1 } }, standing, parts)).toEqual([]);
  // Slanting, it goes by the nearest holes.
  expect(
    partsOver({ from: { row: 2, col: 0 }, to: { row: 4, col: 4 } }, standing, parts).sort(),
  ).toEqual(['C1', 'R1']);
});

test('however parts stand, what needs neither more room nor another hole is wired rightly', () => {
  const place = fc.record({
    row: fc.integer({ min: 1, max: 12 }),
    col: fc.integer({ min: 1, max: 20 }),
  });
  fc.assert(
    fc.property(
      fc.tuple(place, place, place, place, place),
      fc.integer({ min: 2, max: 5 }),
      (places, span) => {
        const parts: Board['parts'] = Object.fromEntries(
          RC.map((c, k): [string, Standing] => [c.id, { at: places[k], turn: 0, span }]),
        );
        const board = wiredBoard(RC, { rows: 20, cols: 24, parts });
        // No link ends beneath another.
        const ends = board.links.flatMap(({ from, to }) => [from, to]).map(keyOf);
        const under = new Set(board.links.flatMap(holesUnder).map(keyOf));
        expect(ends.filter((end) => under.has(end))).toEqual([]);
        // Only a board that the cost calls sound has to be.
        if (costOf(RC, parts) < 1000) expect(boardFaults(RC, board)).toEqual([]);
      },
    ),
    { numRuns: 300 },
  );
});

test.each(['treadle', 'rc-knob'])('%s: planned without a fault', (id) => {
  const components = ofCell(id);
  const board = toItsEnd(planned(components));
  expect(boardFaults(components, board)).toEqual([]);
  // Small enough to be worth it: some holes for each pin.
  const pins = components.reduce((n, c) => n + c.pins.length, 0);
  expect(board.rows * board.cols).toBeLessThan(12 * pins);
});

test('the same seed makes the same board', () =>
  expect(toItsEnd(planned(RC, 3))).toEqual(toItsEnd(planned(RC, 3))));

test('a source between two nets leads to both by wires of different names', () => {
  const components = componentsOf(
    makeCircuit([
      UNIT_SOURCE,
      { id: 'VC', kind: 'voltage-source', plus: 'a', minus: 'half', dcVolts: 1 },
      { id: 'R1', kind: 'resistor', a: 'in', b: 'a', ohms: 1e3 },
      { id: 'R2', kind: 'resistor', a: 'half', b: 'out', ohms: 1e3 },
      { id: 'R3', kind: 'resistor', a: 'out', b: '0', ohms: 1e3 },
    ]),
    REQUEST,
  );
  const ids = components.map((c) => c.id);
  expect(new Set(ids).size).toBe(ids.length);
  expect(ids).toEqual(expect.arrayContaining(['wire VC', 'wire half']));
});
