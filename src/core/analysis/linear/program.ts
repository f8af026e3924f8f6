import type { Plan } from './plan';

/**
 * A plan reduced to the steps that can reach the wanted unknowns from a given right-hand side,
 * flattened into integer arrays for the inner loops.
 */
export interface Program {
  /** Slots to be set afresh for every batch: they carry a reactance, or elimination changes them. */
  fillSlots: Int32Array;
  /** Slots that hold the same real number at every frequency: set once for given part values. */
  constantSlots: Int32Array;
  rhsRows: Int32Array;
  /** For each executed pivot: its slot, its number, and 1 where elimination changes it. */
  pivots: Int32Array;
  /** For each multiplier: its slot, then target row of the right-hand side (or -1) and pivot row. */
  lowers: Int32Array;
  lowerStart: Int32Array;
  /** For each update: target, lower and upper slot, and the pivot number to guard, or -1. */
  updates: Int32Array;
  updateStart: Int32Array;
  /** Back substitution, last first: unknown, row, pivot number, 1 where the right-hand side counts. */
  backs: Int32Array;
  /** Its terms: upper slot and unknown. */
  terms: Int32Array;
  termStart: Int32Array;
  /** Wanted unknowns that are zero by structure. */
  zeros: Int32Array;
}

/**
 * @param reactive 1 for each slot of the matrix that some capacitor or coil writes to
 * @param rhs right-hand side by equation; only which entries are not zero matters here
 * @param wanted unknowns asked for
 */
export function compileProgram(
  plan: Plan,
  reactive: Uint8Array,
  rhs: { re: Float64Array; im: Float64Array },
  wanted: readonly number[] | 'all',
): Program {
  const n = plan.size;
  const pivotOfColumn = new Int32Array(n);
  const pivotOfRow = new Int32Array(n);
  for (let k = 0; k < n; k++) {
    pivotOfColumn[plan.pivotColumn[k]] = k;
    pivotOfRow[plan.pivotRow[k]] = k;
  }
  const { rowNeeded, valueNeeded } = findNeeded(plan, wanted, pivotOfColumn, pivotOfRow);

  const guardOf = new Int32Array(plan.slots).fill(-1);
  for (let k = 0; k < n; k++) guardOf[plan.pivotSlot[k]] = k;
  const driven = Uint8Array.from(rhs.re, (re, row) => (re !== 0 || rhs.im[row] !== 0 ? 1 : 0));
  const used = new Set<number>();
  const changed = new Set<number>();
  const pivots: number[] = [];
  const lowers: number[] = [];
  const lowerStart = [0];
  const updates: number[] = [];
  const updateStart = [0];
  for (let k = 0; k < n; k++) {
    if (!rowNeeded[k]) continue;
    const row = plan.pivotRow[k];
    pivots.push(plan.pivotSlot[k], k, changed.has(plan.pivotSlot[k]) ? 1 : 0);
    used.add(plan.pivotSlot[k]);
    const uppers = plan.upperStart[k + 1] - plan.upperStart[k];
    for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++) used.add(plan.upperSlot[u]);
    for (let l = plan.lowerStart[k]; l < plan.lowerStart[k + 1]; l++) {
      if (!rowNeeded[pivotOfRow[plan.lowerRow[l]]]) continue;
      lowers.push(plan.lowerSlot[l], driven[row] ? plan.lowerRow[l] : -1, row);
      if (driven[row]) driven[plan.lowerRow[l]] = 1;
      used.add(plan.lowerSlot[l]);
      for (let u = 0; u < uppers; u++) {
        const target = plan.targetSlot[plan.targetStart[k] + (l - plan.lowerStart[k]) * uppers + u];
        updates.push(
          target,
          plan.lowerSlot[l],
          plan.upperSlot[plan.upperStart[k] + u],
          guardOf[target],
        );
        used.add(target);
        changed.add(target);
      }
    }
    lowerStart.push(lowers.length / 3);
    updateStart.push(updates.length / 4);
  }

  const backs: number[] = [];
  const terms: number[] = [];
  const termStart = [0];
  const zeros: number[] = [];
  const nonzero = new Uint8Array(n);
  for (let k = n - 1; k >= 0; k--) {
    if (!valueNeeded[k]) continue;
    const row = plan.pivotRow[k];
    const column = plan.pivotColumn[k];
    nonzero[column] = driven[row];
    for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++) {
      if (nonzero[plan.upperColumn[u]]) {
        terms.push(plan.upperSlot[u], plan.upperColumn[u]);
        nonzero[column] = 1;
      }
    }
    if (nonzero[column]) {
      backs.push(column, row, k, driven[row]);
      termStart.push(terms.length / 2);
    } else {
      zeros.push(column);
    }
  }
  const varies = (slot: number) =>
    changed.has(slot) || (slot < plan.ownSlots && reactive[slot] === 1);
  return {
    fillSlots: Int32Array.from(used).filter(varies),
    constantSlots: Int32Array.from(used).filter((slot) => !varies(slot)),
    rhsRows: Int32Array.from(driven.keys()).filter((row) => driven[row] === 1),
    pivots: Int32Array.from(pivots),
    lowers: Int32Array.from(lowers),
    lowerStart: Int32Array.from(lowerStart),
    updates: Int32Array.from(updates),
    updateStart: Int32Array.from(updateStart),
    backs: Int32Array.from(backs),
    terms: Int32Array.from(terms),
    termStart: Int32Array.from(termStart),
    zeros: Int32Array.from(zeros),
  };
}

/** Which pivots' values are wanted, and which rows must be reduced to get them. */
function findNeeded(
  plan: Plan,
  wanted: readonly number[] | 'all',
  pivotOfColumn: Int32Array,
  pivotOfRow: Int32Array,
) {
  const n = plan.size;
  const valueNeeded = new Uint8Array(n);
  if (wanted === 'all') {
    valueNeeded.fill(1);
    return { valueNeeded, rowNeeded: new Uint8Array(n).fill(1) };
  }
  for (const unknown of wanted) valueNeeded[pivotOfColumn[unknown]] = 1;
  // A value needs the later values in its row ...
  for (let k = 0; k < n; k++) {
    if (!valueNeeded[k]) continue;
    for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++)
      valueNeeded[pivotOfColumn[plan.upperColumn[u]]] = 1;
  }
  // ... and a row needs every earlier row that was subtracted from it.
  const rowNeeded = Uint8Array.from(valueNeeded);
  for (let k = n - 1; k >= 0; k--) {
    for (let l = plan.lowerStart[k]; l < plan.lowerStart[k + 1]; l++) {
      if (rowNeeded[pivotOfRow[plan.lowerRow[l]]]) rowNeeded[k] = 1;
    }
  }
  return { valueNeeded, rowNeeded };
}
