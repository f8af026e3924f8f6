import type { Part } from '../schema';

/* Parts with two ends, as tests write them down. */

export const r = (id: string, a: string, b: string, ohms: number): Part => ({
  id,
  kind: 'resistor',
  a,
  b,
  ohms,
});
export const c = (id: string, a: string, b: string, farads: number): Part => ({
  id,
  kind: 'capacitor',
  a,
  b,
  farads,
});
export const l = (id: string, a: string, b: string, henries: number): Part => ({
  id,
  kind: 'inductor',
  a,
  b,
  henries,
});
