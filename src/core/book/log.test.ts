import fc from 'fast-check';
import type { Change } from '@/core/differences/change';
import { readBookEntry, type BookEntry } from './entry';
import { isTakenBack } from './taken-back';
import { logged, type Event } from './log';
import { entrySearchText, entryWords } from './words';

const value = (what: string, before: string, after: string): Change => ({
  kind: 'value',
  what,
  before,
  after,
});

/** A sheet of one letter a part, whose every state is its own fingerprint. */
class Bench {
  lines: BookEntry[] = [];
  private ids = 0;
  private ms = Date.parse('2026-11-28T18:00:00.000Z');
  state: Record<string, string> = { C1: '10n', C2: '22n', R1: '4k7' };

  print = (state = this.state) => JSON.stringify(state);

  wait(seconds: number): this {
    this.ms += seconds * 1000;
    return this;
  }
  go(to: Record<string, string>, kind: Change['kind'] = 'value', by?: string): this {
    const changes = Object.keys(to).flatMap((what) =>
      to[what] === this.state[what] ? [] : [{ ...value(what, this.state[what], to[what]), kind }],
    );
    const event: Event = {
      id: () => `e${++this.ids}`,
      at: new Date(this.ms).toISOString(),
      sheet: 's',
      name: 'Speech',
      changes,
      from: this.print(),
      to: this.print(to),
      ...(by === undefined ? {} : { by }),
    };
    const { put } = logged(this.lines, event);
    for (const line of put) {
      const at = this.lines.findIndex((l) => l.id === line.id);
      if (at < 0) this.lines.push(line);
      else this.lines[at] = line;
    }
    this.state = to;
    return this.wait(30);
  }
  set(what: string, to: string, kind?: Change['kind']): this {
    return this.go({ ...this.state, [what]: to }, kind);
  }
}

test('an evening of turning knobs is one line that opens; a keep is a line of its own', () => {
  const bench = new Bench();
  for (let i = 0; i < 30; i++) bench.set(i % 2 ? 'C2' : 'R1', `${i + 1}x`).wait(120);
  expect(bench.lines).toHaveLength(1);
  expect(bench.lines[0].steps).toHaveLength(30);
  bench.set('C1', '12n', 'keep').set('C2', '33n');
  expect(bench.lines.map((l) => l.kind)).toEqual(['design', 'keep', 'design']);
  bench.wait(4 * 3600).set('C2', '47n');
  expect(bench.lines).toHaveLength(4);
  for (const line of bench.lines) expect(readBookEntry(line)).toEqual(line);
});

test('a slider that is dragged is one step, from where it was to where it came to', () => {
  const bench = new Bench();
  for (let i = 1; i <= 40; i++) bench.set('R1', `${i}k`).wait(-29);
  expect(bench.lines[0].steps).toHaveLength(1);
  expect(bench.lines[0].steps[0].changes).toEqual([value('R1', '4k7', '40k')]);
});

test('what is undone is marked, over lines, and done again when it is', () => {
  const bench = new Bench();
  const states = [bench.state];
  const step = (what: string, to: string, kind?: Change['kind']) => {
    bench.set(what, to, kind);
    states.push(bench.state);
  };
  step('C2', '33n');
  step('R1', '5k1');
  step('C1', '12n', 'keep');
  step('C1', '15n');
  const before = structuredClone(bench.lines);
  const undone = () => bench.lines.map((l) => l.steps.map((s) => s.undone ?? false));
  bench.go(states[3]);
  expect(undone()).toEqual([[false, false], [false], [true]]);
  expect(isTakenBack(bench.lines[2])).toBe(true);
  expect(entryWords(bench.lines[2])).toBe('Tried and taken back: C1 12n → 15n');
  // Several at once, as when they are stored together.
  bench.go(states[1]);
  expect(undone()).toEqual([[false, true], [true], [true]]);
  bench.go(states[4]);
  expect(bench.lines).toEqual(before);
});

test('after going back, what is done next is a line of its own or goes on where it stands', () => {
  const bench = new Bench();
  const first = bench.state;
  bench.set('C2', '33n').set('R1', '5k1');
  const between = { ...first, C2: '33n' };
  bench.go(between).set('R1', '3k9');
  expect(bench.lines).toHaveLength(1);
  expect(bench.lines[0].steps.map((s) => s.undone ?? false)).toEqual([false, true, false]);
});

/** The lines as a chain of states: every step that holds follows on the one before it. */
function chain(lines: readonly BookEntry[]): string[] {
  const steps = lines.flatMap((l) => l.steps).filter((s) => !s.undone);
  steps.forEach((s, i) => expect(s.from).toBe(i === 0 ? steps[0].from : steps[i - 1].to));
  return steps.map((s) => s.to);
}

test('whatever is done and undone, the steps that hold lead from the beginning to the present', () => {
  const values = fc.constantFrom('1n', '2n', '3n', '4n');
  const doing = fc.oneof(
    fc.record({ part: fc.constantFrom('C1', 'C2', 'R1'), to: values, wait: fc.nat(20_000) }),
    fc.record({ undo: fc.integer({ min: 1, max: 4 }) }),
    fc.record({ redo: fc.integer({ min: 1, max: 4 }) }),
  );
  fc.assert(
    fc.property(fc.array(doing, { maxLength: 40 }), (doings) => {
      const bench = new Bench();
      const begin = bench.print();
      let [past, future]: Record<string, string>[][] = [[], []];
      const went = (from: typeof past, to: typeof future, count: number) => {
        let at = bench.state;
        for (let i = 0; i < count && from.length > 0; i++) {
          to.push(at);
          at = from.pop()!;
        }
        if (bench.print(at) !== bench.print()) bench.go(at);
      };
      for (const one of doings) {
        if ('undo' in one) went(past, future, one.undo);
        else if ('redo' in one) went(future, past, one.redo);
        else if (bench.state[one.part] !== one.to) {
          past = [...past, bench.state];
          future = [];
          bench.set(one.part, one.to).wait(one.wait);
        }
      }
      const reached = chain(bench.lines);
      expect(reached.at(-1) ?? begin).toBe(bench.print());
    }),
    { numRuns: 500, seed: 3 },
  );
});

test('a line is found by what it changed, by what it was done with and by its note', () => {
  const bench = new Bench().set('C2', '33n');
  const text = entrySearchText({ ...bench.lines[0], note: 'the hum went away' });
  for (const word of ['c2', '22n', '33n', 'hum', 'speech']) expect(text).toContain(word);
  bench.go({ ...bench.state, R1: '5k1' }, 'value', 'Fit');
  expect(entryWords({ ...bench.lines[0], changes: [value('R1', '4k7', '5k1')] })).toBe(
    'Fit: R1 4k7 → 5k1',
  );
});
