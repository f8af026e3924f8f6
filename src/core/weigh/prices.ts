import { z } from 'zod';
import { notNegative } from '@/core/circuit/part';
import type { Circuit } from '@/core/circuit/schema';

/** What one part costs, in whatever money the person counts. */
export const pricesSchema = z.strictObject({
  resistor: notNegative,
  capacitor: notNegative,
  inductor: notNegative,
  'op-amp': notNegative,
  transconductor: notNegative,
});
export type Prices = z.infer<typeof pricesSchema>;

/** Small quantities from a parts shop; made to be edited. */
export const DEFAULT_PRICES: Prices = {
  resistor: 0.03,
  capacitor: 0.2,
  inductor: 1.5,
  'op-amp': 0.7,
  transconductor: 1.1,
};

export type PartCounts = Record<keyof Prices, number>;

export function countParts(circuit: Circuit): PartCounts {
  const counts: PartCounts = {
    resistor: 0,
    capacitor: 0,
    inductor: 0,
    'op-amp': 0,
    transconductor: 0,
  };
  for (const { kind } of circuit.parts) if (kind in counts) counts[kind as keyof PartCounts]++;
  return counts;
}

export const costOf = (counts: PartCounts, prices: Prices): number =>
  (Object.keys(prices) as (keyof Prices)[]).reduce((sum, k) => sum + counts[k] * prices[k], 0);
