import fc from 'fast-check';
import type { StockEntry } from '@/core/library/stock';
import type { PartsLine } from '@/core/sheet/parts-list';
import { inOrder, waitsFor } from './order';
import { EMPTY_PLAN, readPlan, type Plan } from './plan';
import { shortages } from './shortages';
import type { Task, Wait } from './task';
import { boardsToBuild, leftToBegin, tasksOf, type PlannedSheet } from './tasks';

const resistor = (value: number, each: number, names = ['R1']): PartsLine => ({
  kind: 'resistor',
  value,
  names,
  each,
  stock: [],
});
const stock = (id: string, value: number, quantity: number): StockEntry => ({
  format: 'jaunty-reed/stock',
  version: 1,
  id,
  name: '',
  kind: 'resistor',
  value,
  quantity,
  note: '',
});
const need = (sheet: string, boards: number, lines: PartsLine[]) => ({
  sheet,
  title: sheet,
  boards,
  lines,
});

describe('what is lacking', () => {
  test('a drawer is shared out once: who comes first leaves the rest to the next', () => {
    const drawer = [stock('a', 10e3, 5)];
    const found = shortages(
      [need('first', 2, [resistor(10e3, 2)]), need('second', 1, [resistor(10e3, 3)])],
      drawer,
    );
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({
      pieces: 2,
      lackedBy: [{ sheet: 'second', title: 'second', pieces: 2 }],
    });
    expect(drawer[0].quantity).toBe(5);
  });

  test('what several lack is one line, with the most that any of them asks of it', () => {
    const [one, ...others] = shortages(
      [
        need('a', 1, [{ ...resistor(47e3, 2), watts: 0.1, peakVolts: 20 }]),
        need('b', 2, [{ ...resistor(47e3, 1, ['R7']), watts: 0.3 }]),
      ],
      [],
    );
    expect(others).toEqual([]);
    expect(one).toMatchObject({ pieces: 4, line: { watts: 0.3, peakVolts: 20 } });
    expect(one.line.names).toEqual(['R1', 'R7']);
  });

  test('what lies there and what is lacking are together what is needed, whatever the drawer', () => {
    const lines = fc.array(
      fc.record({ value: fc.constantFrom(1e3, 4.7e3, 10e3), each: fc.integer({ min: 1, max: 9 }) }),
      { maxLength: 5 },
    );
    const needs = fc.array(fc.record({ boards: fc.integer({ min: 1, max: 4 }), lines }), {
      maxLength: 5,
    });
    const drawer = fc.array(
      fc.record({ value: fc.constantFrom(1e3, 4.7e3), quantity: fc.integer({ min: 0, max: 20 }) }),
      { maxLength: 5 },
    );
    fc.assert(
      fc.property(needs, drawer, (wanted, lies) => {
        const entries = lies.map((e, i) => stock(`e${i}`, e.value, e.quantity));
        const found = shortages(
          wanted.map((w, i) =>
            need(
              `s${i}`,
              w.boards,
              w.lines.map((l) => resistor(l.value, l.each)),
            ),
          ),
          entries,
        );
        for (const value of [1e3, 4.7e3, 10e3]) {
          const needed = wanted.reduce(
            (sum, w) =>
              sum + w.lines.reduce((s, l) => s + (l.value === value ? l.each * w.boards : 0), 0),
            0,
          );
          const there = lies.reduce((s, e) => s + (e.value === value ? e.quantity : 0), 0);
          const lacking = found.find((f) => f.line.value === value);
          expect(lacking?.pieces ?? 0).toBe(Math.max(0, needed - there));
          const shares = (lacking?.lackedBy ?? []).reduce((s, l) => s + l.pieces, 0);
          expect(shares).toBe(lacking?.pieces ?? 0);
        }
      }),
    );
  });
});

const SHEET: PlannedSheet = {
  id: 'hum',
  title: 'Hum notch',
  parts: 20,
  boards: [
    { id: 'b1', name: 'Board 1', built: true, measured: true, steps: 0 },
    { id: 'b2', name: 'Board 2', built: true, measured: false, steps: 9 },
    { id: 'b3', name: 'Board 3', built: false, measured: false, steps: 0 },
  ],
};
const lackedByHum = (pieces: number) => shortages([need('hum', 1, [resistor(10e3, pieces)])], []);
const planned = (plan: Partial<Plan>, lacking = lackedByHum(3), sheets = [SHEET]) =>
  inOrder(tasksOf(sheets, { ...EMPTY_PLAN, ...plan }, lacking));

describe('what is to be done', () => {
  test('boards, parts and measurements follow from what is there', () => {
    expect(planned({}).map((t) => [t.title, t.standing, t.hours])).toEqual([
      ['Order 3 parts of one kind', 'now', 0.5],
      ['Measure Board 2', 'now', 0.5],
      ['Build Board 3', 'waiting', 1.5],
      ['Measure Board 3', 'waiting', 0.5],
    ]);
  });

  test('nothing is ordered where nothing is lacking, and a board is built at once', () => {
    expect(planned({}, []).map((t) => [t.title, t.standing])).toEqual([
      ['Build Board 3', 'now'],
      ['Measure Board 2', 'now'],
      ['Measure Board 3', 'after'],
    ]);
  });

  test('what is ordered is waited for, until the last day that is told', () => {
    const [{ key }] = lackedByHum(3);
    const tasks = planned({ ordered: { [key]: { pieces: 3, until: '2026-12-03' } } });
    expect(tasks.map((t) => t.title)).not.toContain('Order 3 parts of one kind');
    expect(tasks.find((t) => t.title === 'Build Board 3')).toMatchObject({
      standing: 'waiting',
      waits: [{ is: 'world', what: 'one kind of parts on the way', until: '2026-12-03' }],
    });
    // Two of three: the third is still to be ordered.
    const some = planned({ ordered: { [key]: { pieces: 2, until: null } } });
    expect(some[0].title).toBe('Order a part');
  });

  test('sizes, ticks and what the world keeps back are the person’s', () => {
    const tasks = planned(
      {
        hours: { 'build hum b3': 6 },
        done: { 'measure hum b2': '2026-11-28T10:00:00.000Z' },
        waits: { 'build hum b3': { for: 'the board in the post', until: null } },
        wanted: { hum: { boards: 3, had: 2, at: '2026-11-28T10:00:00.000Z' } },
        own: [
          { id: 'x', title: 'Drill the front', hours: 1, after: ['build hum b3', 'gone'] },
          { id: 'y', title: 'Ring the hall', hours: 0.1, after: [] },
        ],
      },
      [],
    );
    expect(tasks.map((t) => [t.title, t.standing, t.hours])).toEqual([
      ['Build 2 boards', 'now', 3],
      ['Ring the hall', 'now', 0.1],
      ['Measure them', 'after', 1],
      ['Build Board 3', 'waiting', 6],
      ['Drill the front', 'waiting', 1],
      ['Measure Board 3', 'waiting', 0.5],
    ]);
    const said = tasks.filter((t) => !t.usual).map((t) => t.title);
    expect(said).toEqual(['Ring the hall', 'Build Board 3', 'Drill the front']);
  });
});

test('who begins a wanted board at the bench has one less to begin, and who takes it away one more', () => {
  const at = '2026-11-28T10:00:00.000Z';
  const plan = { ...EMPTY_PLAN, wanted: { hum: { boards: 2, had: 3, at } } };
  const board = { id: 'b4', name: 'Board 4', built: false, measured: false, steps: 0 };
  const left = (boards: PlannedSheet['boards']) => leftToBegin({ id: 'hum', boards }, plan);
  expect(left(SHEET.boards)).toBe(2);
  expect(left([...SHEET.boards, board])).toBe(1);
  expect(left([...SHEET.boards, board, board, board])).toBe(0);
  expect(left([])).toBe(2);
  expect(boardsToBuild({ ...SHEET, boards: [...SHEET.boards, board] }, plan)).toBe(3);
});

const tasks = fc.array(
  fc.record({
    hours: fc.integer({ min: 0, max: 9 }),
    after: fc.array(fc.nat(11)),
    world: fc.boolean(),
  }),
  { minLength: 1, maxLength: 12 },
);
const made = (list: { hours: number; after: number[]; world: boolean }[], circles: boolean) =>
  list.map(({ hours, after, world }, i): Task => ({
    id: `t${i}`,
    kind: 'own',
    title: `Task ${i}`,
    sheet: '',
    hours,
    usual: false,
    waits: [
      ...after
        .filter((j) => j < list.length && (circles || j < i))
        .map((j): Wait => ({ is: 'task', id: `t${j}` })),
      ...(world ? [{ is: 'world' as const, what: 'the post', until: null }] : []),
    ],
  }));

test('whatever waits for whatever, each task comes once, after all that it waits for', () => {
  fc.assert(
    fc.property(tasks, (list) => {
      const all = made(list, false);
      const order = inOrder(all);
      expect(order.map((t) => t.id).sort()).toEqual(all.map((t) => t.id).sort());
      const place = new Map(order.map((t, i) => [t.id, i]));
      for (const t of order) {
        for (const w of t.waits)
          if (w.is === 'task') expect(place.get(w.id)!).toBeLessThan(place.get(t.id)!);
        expect(t.standing === 'now').toBe(t.waits.length === 0);
      }
    }),
  );
});

test('tasks that wait for each other in a circle are all there, as waiting ones', () => {
  fc.assert(
    fc.property(tasks, (list) => {
      const all = made(list, true);
      const order = inOrder(all);
      expect(order).toHaveLength(all.length);
      for (const { id, standing } of order) {
        const ofCircle = all
          .find((t) => t.id === id)!
          .waits.some((w) => w.is === 'task' && waitsFor(all, w.id, id));
        if (ofCircle) expect(standing).toBe('waiting');
      }
    }),
  );
});

test('of a stored plan what can be read is read, field by field', () => {
  const plan: Plan = {
    ...EMPTY_PLAN,
    hours: { order: 2 },
    own: [{ id: 'x', title: 'Drill', hours: 1, after: [] }],
  };
  expect(readPlan(JSON.parse(JSON.stringify(plan)))).toEqual(plan);
  expect(readPlan({ ...plan, hours: { order: -1 }, later: true })).toEqual({ ...plan, hours: {} });
  for (const foreign of [null, 3, 'x', [], { own: 'x' }])
    expect(readPlan(foreign)).toEqual(EMPTY_PLAN);
});
