import made from '@/core/demo/made.json';
import { faultParts } from '@/core/rig/fault';
import type { Sheet } from '@/core/sheet/schema';
import { BOARDS, deal, type PracticeBoard } from './deal';
import { LADDER } from './ladder';
import { COSTS, measure } from './measure';
import { costOf, isRight, reasonAbout } from './reasoning';
import { recordSchema, UNTOUCHED } from './record';

const SHEETS = made as unknown as Sheet[];
const all = (number: number): PracticeBoard[] =>
  LADDER.flatMap((_, rung) =>
    Array.from({ length: BOARDS }, (__, board) => deal({ deal: number, rung, board }, SHEETS)),
  );
const FIRST = all(1);

test('the same place is the same board, and another deal another', () => {
  const faults = (boards: readonly PracticeBoard[]) => boards.map((b) => b.fault);
  expect(faults(all(1))).toEqual(faults(FIRST));
  expect(faults(all(2))).not.toEqual(faults(FIRST));
  // On no rung are all boards the same.
  LADDER.forEach((_, rung) => {
    const own = FIRST.filter((b) => b.place.rung === rung);
    expect(new Set(own.map((b) => JSON.stringify(b.fault))).size).toBeGreaterThan(2);
  });
  expect(() => deal({ deal: 1, rung: 9, board: 0 }, SHEETS)).toThrow('no rung 10');
  expect(() => deal({ deal: 1, rung: 0, board: 0 }, [])).toThrow('No board could be made');
});

test.each(FIRST.map((b): [string, PracticeBoard] => [JSON.stringify(b.place), b]))(
  'board %s shows its fault at the output, and in the part itself',
  (_, board) => {
    const { fault, sound } = board;
    const sweep = measure(board, { is: 'sweep', net: sound.probe }, 0);
    if (sweep.is !== 'sweep') throw new Error('a sweep');
    const off = sweep.curve.levelDb.map((db, k) => Math.abs(db - sweep.shouldDb[k]));
    expect(Math.max(...off)).toBeGreaterThan(0.5);
    expect(measure(board, { is: 'sweep', net: sound.probe }, 0)).toEqual(sweep);
    // Lifted and measured it is off by what was got wrong; what lies across it is gone then.
    for (const part of faultParts(fault)) {
      const found = measure(board, { is: 'part', part }, 1);
      if (found.is !== 'part') throw new Error('a part');
      const ratio = found.value === null ? null : found.value / found.should;
      if (fault.is === 'missing') expect(ratio).toBeNull();
      else if (fault.is === 'shorted') expect(Math.abs(ratio! - 1)).toBeLessThan(0.12);
      else expect(Math.abs(Math.log(ratio!))).toBeGreaterThan(0.1);
    }
    // Nobody else is.
    for (const { id, kind } of sound.circuit.parts) {
      if (sound.fixed.has(id) || faultParts(fault).includes(id)) continue;
      if (kind !== 'resistor' && kind !== 'capacitor') continue;
      const found = measure(board, { is: 'part', part: id }, 2);
      if (found.is !== 'part') throw new Error('a part');
      expect(Math.abs(found.value! / found.should - 1)).toBeLessThan(0.25);
    }
  },
);

test('resistances without power are open, joined or what resistors make them', () => {
  const board = FIRST.find(
    ({ fault, sound }) =>
      fault.is === 'missing' &&
      sound.circuit.parts.some((p) => p.id === fault.part && p.kind === 'resistor'),
  )!;
  const { fault, sound } = board;
  const part = sound.circuit.parts.find((p) => p.id === faultParts(fault)[0])!;
  if (part.kind !== 'resistor') throw new Error('a resistor');
  const found = measure(board, { is: 'resistance', between: [part.a, part.b] }, 0);
  if (found.is !== 'resistance') throw new Error('a resistance');
  expect(found.shouldOhms).toBeLessThanOrEqual(part.ohms * 1.001);
  expect(found.ohms).toBeGreaterThan(1.2 * found.shouldOhms);
  expect(measure(board, { is: 'resistance', between: [part.a, part.a] }, 0)).toMatchObject({
    ohms: 0,
    shouldOhms: 0,
  });
  expect(() => measure(board, { is: 'part', part: 'R99' }, 0)).toThrow('no part “R99”');
});

test('what a board costs: measurements, and every part that was blamed and was good', () => {
  const asked = [{ is: 'sweep', net: 'out' } as const, { is: 'part', part: 'R1' } as const];
  expect(costOf(UNTOUCHED)).toBe(0);
  expect(costOf({ asked, blamed: [['R1'], ['C1']], state: 'open' })).toBe(6 + 8 + 20);
  expect(costOf({ asked, blamed: [['R1'], ['C1']], state: 'solved' })).toBe(6 + 8 + 10);
  expect(isRight({ is: 'swapped', parts: ['R1', 'R2'] }, ['R2', 'R1'])).toBe(true);
  expect(isRight({ is: 'swapped', parts: ['R1', 'R2'] }, ['R2'])).toBe(false);
  expect(recordSchema.safeParse({ ...UNTOUCHED, state: 'won' }).success).toBe(false);
  expect(recordSchema.parse({ asked, blamed: [['R1']], state: 'shown' }).asked).toEqual(asked);
});

test('the way to it is told for every rung, and costs less than lifting every part', () => {
  for (let rung = 0; rung < LADDER.length; rung++) {
    const board = FIRST[rung * BOARDS];
    const { par, comparison, take } = reasonAbout(board);
    expect(take.levelDb).toHaveLength(comparison.differenceDb.length);
    expect(comparison.findings.ordinary.enough).toBe(false);
    expect(par).toBeGreaterThanOrEqual(COSTS.sweep);
    expect(par).toBeLessThanOrEqual(COSTS.sweep + 2 * COSTS.part);
  }
});
