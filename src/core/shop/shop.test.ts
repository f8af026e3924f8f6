import fc from 'fast-check';
import { readEntry } from '@/core/library/entry';
import { stockKind } from '@/core/library/stock';
import { stockEntryOf } from '@/core/library/stock-table';
import { catalogue } from './catalogue';
import { shopAnswerSchema, shopReceiptSchema, stockOf } from './offer';
import { order, search } from './shop';

test('everything the shop has is an offer under a name of its own, and could lie in the drawer', () => {
  const all = catalogue();
  expect(new Set(all.map((o) => o.id)).size).toBe(all.length);
  expect(all.length).toBeGreaterThan(400);
  for (const offer of all)
    expect(() => readEntry(stockKind, stockEntryOf(stockOf(offer, 3), 'x'))).not.toThrow();
});

test.each([
  ['22n', /^22.nF/],
  ['4k7 metal film', /^4.(7|75|64).kΩ.*metal/],
  ['polypropylene 10n', /^10.nF polypropylene/],
  ['op-amp', /bipolar|FET|power/],
  ['1m coil', /^1.mH/],
])('“%s” finds it', (text, name) => {
  const { offers } = search({ text });
  expect(offers[0].name).toMatch(name);
});

test('whatever is asked, the answer keeps to what was agreed on', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 40 }), fc.boolean(), (text, soldOut) => {
      expect(shopAnswerSchema.safeParse(search({ text }, soldOut)).success).toBe(true);
    }),
    { numRuns: 200 },
  );
});

test('an order is delivered whole, or not at all with what is lacking', () => {
  const plenty = catalogue().find((o) => o.pieces > 30)!;
  const scarce = catalogue().find((o) => o.pieces < 3)!;
  const good = order({ items: [{ id: plenty.id, pieces: 3 }] });
  expect(good).toMatchObject({ lacking: [], total: Number((3 * plenty.price).toFixed(2)) });
  expect(shopReceiptSchema.safeParse(good).success).toBe(true);
  const bad = order({
    items: [
      { id: plenty.id, pieces: 3 },
      { id: scarce.id, pieces: 5 },
      { id: 'never-heard-of', pieces: 1 },
    ],
  });
  expect(bad.delivered).toEqual([]);
  expect(bad.lacking).toEqual([
    { id: scarce.id, pieces: scarce.pieces },
    { id: 'never-heard-of', pieces: 0 },
  ]);
});
