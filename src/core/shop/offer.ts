import * as z from 'zod';
import { between } from '@/core/quantity/bounds';
import type { StockWords } from '@/core/library/stock-words';

/** A part as the shop offers it. */
export const shopOfferSchema = z.strictObject({
  id: z.string().min(1).max(64),
  name: z.string().max(120),
  kind: z.string().max(40),
  value: z.number().positive().optional(),
  tolerance: between(0, 0.9).optional(),
  make: z.string().max(60).optional(),
  ppmPerKelvin: between(-1e5, 1e5).optional(),
  ratedVolts: between(0.1, 1e5).optional(),
  ratedWatts: between(1e-3, 1e4).optional(),
  /** Of one, in the shop’s money. */
  price: between(0, 1e6),
  /** How many it has. */
  pieces: z.int().min(0),
});

/** What the shop answers to a search. */
export const shopAnswerSchema = z.strictObject({
  format: z.literal('jaunty-reed/shop-answer'),
  version: z.literal(1),
  offers: z.array(shopOfferSchema).max(200),
  /** How many more there are. */
  more: z.int().min(0),
});

const itemSchema = z.strictObject({
  id: z.string().min(1).max(64),
  pieces: z.int().min(1, 'must be at least 1').max(10_000, 'must be at most 10,000'),
});

/** What is ordered. */
export const shopOrderSchema = z.strictObject({
  items: z.array(itemSchema).min(1, 'must list at least one part').max(200),
});

/** What became of an order: all of it is delivered, or nothing is and the shop says what it has not. */
export const shopReceiptSchema = z.strictObject({
  format: z.literal('jaunty-reed/shop-receipt'),
  version: z.literal(1),
  delivered: z.array(z.strictObject({ offer: shopOfferSchema, pieces: z.int().min(1) })),
  lacking: z.array(z.strictObject({ id: z.string(), pieces: z.int().min(0) })),
  total: z.number().min(0),
});

export type ShopOffer = z.infer<typeof shopOfferSchema>;
export type ShopAnswer = z.infer<typeof shopAnswerSchema>;
export type ShopOrder = z.infer<typeof shopOrderSchema>;
export type ShopReceipt = z.infer<typeof shopReceiptSchema>;

/** What was bought, as the drawer takes it. */
export function stockOf(offer: ShopOffer, pieces: number): StockWords {
  const { name, kind, value, tolerance, make, ppmPerKelvin, ratedVolts, ratedWatts, price } = offer;
  const said = { value, tolerance, make, ppmPerKelvin, ratedVolts, ratedWatts, price };
  const there = Object.fromEntries(Object.entries(said).filter(([, x]) => x !== undefined));
  return { note: '', name, kind, ...there, quantity: pieces };
}
