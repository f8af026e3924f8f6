import { sheetAddress, sheetIn } from './sheet-address';

jest.mock('next/navigation', () => ({}));

test.each([
  ['/', undefined],
  ['/sheet/demo-trim', 'demo-trim'],
  ['/sheet/demo-trim/', 'demo-trim'],
  ['/sheet/a%20b%2Fc', 'a b/c'],
  ['/sheet/%', undefined],
  ['/sheet/', undefined],
  ['/sheet/a/bench', 'a'],
  ['/book/sheet/a', undefined],
])('the address %s names the sheet %s', (path, id) => expect(sheetIn(path)).toBe(id));

test.each(['demo-trim', 'a b/c', '100 % of it', 'ü?#'])('the address of %s leads to it', (id) => {
  expect(sheetIn(sheetAddress(id))).toBe(id);
  expect(sheetIn(sheetAddress(id, 'bench'))).toBe(id);
});
