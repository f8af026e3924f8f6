import type { QuantityKind } from '@/core/quantity/kinds';

/** One step of building and trying a board; what is done is remembered by its id. */
export interface BenchStep {
  id: string;
  title: string;
  detail: string;
  /** What may hurt, or break, just here. */
  caution?: string;
  /** What is read at it, where something is. */
  expects?: Expected;
}

/** What should be read, and between which limits. */
export interface Expected {
  quantity: QuantityKind;
  least: number;
  /** Infinite where nothing should conduct. */
  most: number;
}
