import fc from 'fast-check';
import { MadeAhead } from './made-ahead';

const PIECE = 128;

/** What sounds is a count of pieces and a setting, which changes; a feeder holds what it was given. */
function counting() {
  let [count, setting] = [0, 0];
  const made = new MadeAhead({
    mark() {
      const at = count;
      return () => void (count = at);
    },
  });
  const held: { piece: number; setting: number }[] = [];
  const make = () => {
    const { at, joins } = made.begin(PIECE, true);
    held[Math.round(at / PIECE)] = { piece: count++, setting };
    return { at, joins };
  };
  return { made, held, make, set: (to: number) => (setting = to) };
}

test('a change is made anew from the nearest place that can be reached, and goes on as if made so', () => {
  const { made, held, make, set } = counting();
  for (let k = 0; k < 40; k++) make();
  made.reached(10 * PIECE);
  made.goBack(768);
  set(1);
  expect(made.again).toBe(true);
  expect(make()).toEqual({ at: 16 * PIECE, joins: true });
  expect(make()).toEqual({ at: 17 * PIECE, joins: false });
  while (made.again) make();
  expect(held.map(({ piece }) => piece)).toEqual(Array.from({ length: 40 }, (_, k) => k));
  expect(held.map((h) => h.setting)).toEqual([
    ...Array<number>(16).fill(0),
    ...Array<number>(24).fill(1),
  ]);
});

test('given up, what was made before is played to its end, and the new comes after it', () => {
  const { made, make } = counting();
  for (let k = 0; k < 40; k++) make();
  made.goBack(768);
  make();
  made.reached(12 * PIECE);
  expect(made.samples).toBeLessThan(0);
  made.giveUp();
  const { at, joins } = make();
  expect(joins).toBe(true);
  expect(40 * PIECE - at).toBe(64);
  // Nothing goes back to before that any more.
  made.goBack(0);
  expect(made.samples).toBe(at - 12 * PIECE);
});

test('whatever comes in whatever order, nothing that lies ready is lost, and no place is left out', () => {
  const event = fc.oneof(
    fc.record({ is: fc.constant('make' as const), pieces: fc.integer({ min: 1, max: 60 }) }),
    fc.record({ is: fc.constant('play' as const), pieces: fc.integer({ min: 1, max: 30 }) }),
    fc.record({ is: fc.constantFrom('change' as const, 'give up' as const, 'keep' as const) }),
  );
  fc.assert(
    fc.property(fc.array(event, { maxLength: 60 }), (events) => {
      const { made } = counting();
      let [end, played, next] = [0, 0, 0];
      for (const e of events) {
        if (e.is === 'make')
          for (let k = 0; k < e.pieces; k++) {
            const { at, joins } = made.begin(PIECE, true);
            expect(at).toBeLessThanOrEqual(end);
            // What does not take the place of something follows what was made last.
            if (!joins) expect(at).toBe(next);
            next = at + PIECE;
            end = Math.max(end, at + PIECE);
          }
        else if (e.is === 'play') {
          played = Math.min(end, played + e.pieces * PIECE);
          made.reached(played);
        } else if (e.is === 'change') made.goBack(768);
        else if (e.is === 'give up') made.giveUp();
        else made.keep();
        if (!made.again) expect(made.samples).toBe(end - played);
        else expect(made.samples).toBeLessThan(end - played);
      }
    }),
  );
});
