import * as z from 'zod';
import { notNegative } from '@/core/circuit/part';
import type { Circuit } from '@/core/circuit/schema';
import { PART_KINDS } from '@/core/parts';

/** Usual prices by kind of part, for kinds that are bought. */
const USUAL: Prices = Object.fromEntries(
  PART_KINDS.flatMap(({ kind, price }) => (price === null ? [] : [[kind, price]])),
);

/** What one part costs, by kind, in whatever money the person counts. */
export const pricesSchema = z.record(z.string(), notNegative);
export type Prices = Record<string, number>;

/** Small quantities from a parts shop; made to be edited. */
export const DEFAULT_PRICES: Prices = USUAL;

/** How many parts of each kind that designs have there are. */
export type PartCounts = Record<string, number>;

export function countParts(circuit: Circuit): PartCounts {
  const counts: PartCounts = Object.fromEntries(
    PART_KINDS.flatMap(({ kind, inDesigns }) => (inDesigns ? [[kind, 0]] : [])),
  );
  for (const { kind } of circuit.parts) if (kind in counts) counts[kind]++;
  return counts;
}

export const costOf = (counts: PartCounts, prices: Prices): number =>
  Object.entries(counts).reduce((sum, [kind, n]) => sum + n * (prices[kind] ?? USUAL[kind]), 0);
