import type { Entry, System } from '@/core/circuit/compile';
import { productOf } from '@/core/circuit/stamper';

/**
 * The equations' matrix A(s) = G + s C as values in numbered slots, one slot for each (row, column)
 * that some part writes to.
 */
export interface SlotMatrix {
  size: number;
  /** Row and column of each slot. */
  rows: Int32Array;
  columns: Int32Array;
  /** Slot of each entry of the system. */
  slotOfEntry: Int32Array;
  /** 1 for each slot that some entry of C writes to, and of G. */
  reactive: Uint8Array;
  resistive: Uint8Array;
  /** 1 or -1 for each slot that a part writes this number to, and nobody anything else; else 0. */
  ones: Int8Array;
  g: Float64Array;
  c: Float64Array;
  /** Counts the fillings, so that copies know when they are out of date. */
  revision: number;
}

/** Find the slots of a system's entries and fill them, with its nominal values if no others are given. */
export function slotMatrix(
  system: System,
  extra: readonly Entry[] = [],
  values: Float64Array = Float64Array.from(system.parameters, (p) => p.value),
): SlotMatrix {
  const entries = extra.length > 0 ? [...system.entries, ...extra] : system.entries;
  const size = system.unknowns.length;
  const slots = new Map<number, number>();
  const slotOfEntry = new Int32Array(entries.length);
  entries.forEach(({ row, column }, i) => {
    const key = row * size + column;
    let slot = slots.get(key);
    if (slot === undefined) slots.set(key, (slot = slots.size));
    slotOfEntry[i] = slot;
  });
  const rows = new Int32Array(slots.size);
  const columns = new Int32Array(slots.size);
  for (const [key, slot] of slots) {
    rows[slot] = Math.floor(key / size);
    columns[slot] = key % size;
  }
  const reactive = new Uint8Array(slots.size);
  const resistive = new Uint8Array(slots.size);
  const ones = new Int8Array(slots.size);
  const writers = new Int32Array(slots.size);
  entries.forEach(({ reactive: stored, scale, factors }, i) => {
    const slot = slotOfEntry[i];
    (stored ? reactive : resistive)[slot] = 1;
    writers[slot]++;
    // What devices add are slopes, which may happen to be one.
    const stamped = i < system.entries.length;
    if (stamped && !stored && factors.length === 0 && Math.abs(scale) === 1) ones[slot] = scale;
  });
  for (let slot = 0; slot < ones.length; slot++) if (writers[slot] > 1) ones[slot] = 0;
  const g = new Float64Array(slots.size);
  const c = new Float64Array(slots.size);
  const matrix = {
    size,
    rows,
    columns,
    slotOfEntry,
    reactive,
    resistive,
    ones,
    g,
    c,
    revision: 0,
  };
  fillSlots(matrix, system.entries, extra, values);
  return matrix;
}

/**
 * Write the values of G and C for given parameter values.
 *
 * @param entries of the system
 * @param extra what devices add to them, which may be others each time
 */
export function fillSlots(
  matrix: SlotMatrix,
  entries: readonly Entry[],
  extra: readonly Entry[],
  values: Float64Array,
): void {
  matrix.revision++;
  const { g, c, slotOfEntry } = matrix;
  g.fill(0);
  c.fill(0);
  const { reactive, scale, start, parameter, power } = flattened(entries);
  for (let i = 0; i < scale.length; i++) {
    let value = scale[i];
    for (let f = start[i]; f < start[i + 1]; f++) {
      const p = values[parameter[f]];
      const of = power[f];
      value *= of === 1 ? p : of === -1 ? 1 / p : p ** of;
    }
    if (reactive[i] === 1) c[slotOfEntry[i]] += value;
    else g[slotOfEntry[i]] += value;
  }
  for (let i = 0; i < extra.length; i++) {
    const target = extra[i].reactive ? c : g;
    target[slotOfEntry[entries.length + i]] += productOf(extra[i], values);
  }
}

/** Entries as numbers in rows, for the thousands of times that boards fill them. */
interface Flat {
  reactive: Uint8Array;
  scale: Float64Array;
  /** Factors of entry i: parameter and power at start[i] .. start[i + 1]. */
  start: Int32Array;
  parameter: Int32Array;
  power: Float64Array;
}

const flats = new WeakMap<readonly Entry[], Flat>();

function flattened(entries: readonly Entry[]): Flat {
  let flat = flats.get(entries);
  if (!flat) {
    const start = new Int32Array(entries.length + 1);
    entries.forEach(({ factors }, i) => (start[i + 1] = start[i] + factors.length));
    const factors = entries.flatMap((entry) => entry.factors);
    flat = {
      reactive: Uint8Array.from(entries, (e) => Number(e.reactive)),
      scale: Float64Array.from(entries, (e) => e.scale),
      start,
      parameter: Int32Array.from(factors, ([parameter]) => parameter),
      power: Float64Array.from(factors, ([, power]) => power),
    };
    flats.set(entries, flat);
  }
  return flat;
}
