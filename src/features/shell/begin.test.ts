import { sheetIn } from './begin';

test.each([
  ['/', undefined],
  ['/sheet/demo-trim', 'demo-trim'],
  ['/sheet/demo-trim/', 'demo-trim'],
  ['/sheet/a%20b%2Fc', 'a b/c'],
  ['/sheet/%', undefined],
  ['/sheet/', undefined],
  ['/sheet/a/b', undefined],
])('the address %s names the sheet %s', (path, id) => expect(sheetIn(path)).toBe(id));
