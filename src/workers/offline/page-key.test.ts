import { DATA_HEADERS, DATA_KINDS, keyOf, kindOfKey, pageKey } from './page-key';

const asked = (path: string, headers: Readonly<Record<string, string>> = {}, navigates = false) =>
  pageKey({ path, navigates, header: (name) => headers[name] ?? null });

test.each([
  ['/', '/'],
  ['/book', '/book'],
  ['/book/', '/book'],
  ['/sheet/demo-rumble', '/sheet/-'],
  ['/sheet/a%20b%2Fc/bench', '/sheet/-/bench'],
  ['/sheet/x/parts/', '/sheet/-/parts'],
])('who goes to %s is answered with %s', (path, key) => {
  expect(asked(path, {}, true)).toBe(key);
  for (const kind of DATA_KINDS) {
    expect(asked(path, DATA_HEADERS[kind])).toBe(keyOf(key, kind));
    expect(kindOfKey(new URL(keyOf(key, kind), 'http://x'))).toBe(kind);
  }
});

test('what is of no page, or of a part of one that is not kept, goes to the network', () => {
  expect(asked('/api/shop')).toBeUndefined();
  expect(asked('/_next/static/a.js')).toBeUndefined();
  expect(
    asked('/book', { ...DATA_HEADERS.tree, 'next-router-segment-prefetch': '/book/__PAGE__' }),
  ).toBeUndefined();
  expect(kindOfKey(new URL('http://x/book?_rsc=5CB68i4pnAekjehf'))).toBeUndefined();
});
