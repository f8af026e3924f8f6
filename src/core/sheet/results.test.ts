import { Results } from './results';

test('a result is computed when it is asked for, and again only when what it stands on changed', () => {
  const results = new Results();
  const square = jest.fn((x: number) => x * x);
  const ask = (x: number) => results.get('square', [x], () => square(x));
  expect([ask(3), ask(3), ask(4), ask(4)]).toEqual([9, 9, 16, 16]);
  expect(square).toHaveBeenCalledTimes(2);
  // Objects are what they are, not what they say.
  const half = jest.fn(() => 1);
  const of = (what: object) => results.get('half', [what], half);
  const one = {};
  of(one);
  of(one);
  of({});
  expect(half).toHaveBeenCalledTimes(2);
});

test('results ask for others; a failure is kept like a result; what nobody asks for is forgotten', () => {
  const results = new Results();
  const inner = jest.fn(() => 5);
  const outer = () => results.get('outer', [], () => 1 + results.get('inner', [], inner));
  expect([outer(), results.get('inner', [], inner), outer()]).toEqual([6, 5, 6]);
  expect(inner).toHaveBeenCalledTimes(1);
  const fails = jest.fn(() => {
    throw new Error('no such thing');
  });
  const ask = () => results.get<number>('none', [], fails);
  expect(ask).toThrow('no such thing');
  expect(ask).toThrow('no such thing');
  expect(fails).toHaveBeenCalledTimes(1);
  results.sweep();
  results.sweep();
  results.get('inner', [], inner);
  expect(inner).toHaveBeenCalledTimes(2);
});
