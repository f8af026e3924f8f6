import type { SlotMatrix } from '../linear/matrix';
import { planElimination, type Plan } from '../linear/plan';
import type { Installed } from './step-devices';

/** In which order the unknowns of a step are worked out. */
export interface StepOrder {
  /** Unknowns that no device bears on, first to last: each follows by its row from those before it. */
  known: { unknown: number; row: number; slot: number }[];
  /** Rows that only say what one unknown is that nothing else depends on; both are left out. */
  looseRows: ReadonlySet<number>;
  looseUnknowns: ReadonlySet<number>;
  /** Elimination of what is left, in rows, unknowns and slots of its own. */
  plan: Plan;
  /** So many pivots that no device touches come first. */
  early: number;
  /** Rows, unknowns and slots of the plan in the whole. */
  rows: readonly number[];
  unknowns: readonly number[];
  slots: readonly number[];
  /** Row and column of each slot, in the order's own numbers. */
  places: { rows: Int32Array; columns: Int32Array };
}

/**
 * @param pattern of the whole Jacobian
 * @param stamped 1 for each slot that parts write to (devices aside)
 * @param nets unknowns that must be found
 * @param sample values of the slots at a state like those to come
 * @throws SingularPlan when what is left has no unique solution there
 */
export function stepOrder(
  pattern: SlotMatrix,
  stamped: Uint8Array,
  devices: readonly Installed[],
  nets: ReadonlySet<number>,
  sample: Float64Array,
): StepOrder {
  const structure = new Structure(pattern, stamped, devices);
  const known = structure.peelKnown();
  const loose = structure.peelLoose(nets);
  const rows = structure.rest(structure.rowsLeft);
  const unknowns = structure.rest(structure.unknownsLeft);
  const rowPlace = new Map(rows.map((row, i) => [row, i]));
  const columnPlace = new Map(unknowns.map((unknown, i) => [unknown, i]));
  const slots = Array.from(pattern.rows.keys()).filter(
    (slot) =>
      structure.lives(slot) &&
      rowPlace.has(pattern.rows[slot]) &&
      columnPlace.has(pattern.columns[slot]),
  );
  const reduced: SlotMatrix = {
    ...pattern,
    size: rows.length,
    rows: Int32Array.from(slots, (slot) => rowPlace.get(pattern.rows[slot])!),
    columns: Int32Array.from(slots, (slot) => columnPlace.get(pattern.columns[slot])!),
  };
  const values = Float64Array.from(slots, (slot) => sample[slot]);
  const late = {
    rows: Uint8Array.from(rows, (row) => Number(structure.deviceRows.has(row))),
    columns: Uint8Array.from(unknowns, (u) => Number(structure.deviceUnknowns.has(u))),
  };
  const sampled = { re: values, im: new Float64Array(values.length) };
  const plan = planElimination(reduced, [sampled], late);
  const firstLate = plan.pivotRow.findIndex(
    (row, k) => late.rows[row] + late.columns[plan.pivotColumn[k]] > 0,
  );
  return {
    known,
    looseRows: new Set(loose.map(({ row }) => row)),
    looseUnknowns: new Set(loose.map(({ unknown }) => unknown)),
    plan,
    early: firstLate < 0 ? plan.size : firstLate,
    rows,
    unknowns,
    slots,
    places: { rows: reduced.rows, columns: reduced.columns },
  };
}

/** Which rows and unknowns bear on one another, and which of them are still to be dealt with. */
class Structure {
  readonly deviceRows = new Set<number>();
  readonly deviceUnknowns = new Set<number>();
  readonly rowsLeft: boolean[];
  readonly unknownsLeft: boolean[];
  private readonly live: Uint8Array;
  private readonly slotsOfRow: number[][];
  private readonly slotsOfUnknown: number[][];

  constructor(
    private readonly pattern: SlotMatrix,
    stamped: Uint8Array,
    devices: readonly Installed[],
  ) {
    const { size, rows, columns } = pattern;
    this.live = stamped.slice();
    const slotAt = new Map<number, number>();
    rows.forEach((row, slot) => slotAt.set(row * size + columns[slot], slot));
    for (const { drops, flows } of devices) {
      for (const unknown of drops.flat()) if (unknown >= 0) this.deviceUnknowns.add(unknown);
      for (const { from, to, by } of flows)
        for (const row of [from, to]) {
          if (row < 0) continue;
          this.deviceRows.add(row);
          for (const unknown of by.flatMap((drop) => drops[drop]))
            if (unknown >= 0) this.live[slotAt.get(row * size + unknown)!] = 1;
        }
    }
    const lines = () => Array.from({ length: size }, (): number[] => []);
    this.slotsOfRow = lines();
    this.slotsOfUnknown = lines();
    this.live.forEach((lives, slot) => {
      if (!lives) return;
      this.slotsOfRow[rows[slot]].push(slot);
      this.slotsOfUnknown[columns[slot]].push(slot);
    });
    this.rowsLeft = Array.from({ length: size }, () => true);
    this.unknownsLeft = this.rowsLeft.slice();
  }

  lives(slot: number): boolean {
    return this.live[slot] === 1;
  }

  rest(left: readonly boolean[]): number[] {
    return Array.from(left.keys()).filter((i) => left[i]);
  }

  /** Rows without devices and with one unknown left, again and again. */
  peelKnown(): StepOrder['known'] {
    const known: StepOrder['known'] = [];
    for (let found = true; found;) {
      found = false;
      for (const row of this.rest(this.rowsLeft)) {
        if (this.deviceRows.has(row)) continue;
        const open = this.slotsOfRow[row].filter(
          (slot) => this.unknownsLeft[this.pattern.columns[slot]],
        );
        if (open.length !== 1) continue;
        known.push(this.takeOut(open[0]));
        found = true;
      }
    }
    return known;
  }

  /** Unknowns in one row only, again and again. */
  peelLoose(nets: ReadonlySet<number>): { unknown: number; row: number }[] {
    const loose: { unknown: number; row: number }[] = [];
    for (let found = true; found;) {
      found = false;
      for (const unknown of this.rest(this.unknownsLeft)) {
        if (nets.has(unknown) || this.deviceUnknowns.has(unknown)) continue;
        const open = this.slotsOfUnknown[unknown].filter(
          (slot) => this.rowsLeft[this.pattern.rows[slot]],
        );
        if (open.length !== 1) continue;
        loose.push(this.takeOut(open[0]));
        found = true;
      }
    }
    return loose;
  }

  private takeOut(slot: number): { unknown: number; row: number; slot: number } {
    const [row, unknown] = [this.pattern.rows[slot], this.pattern.columns[slot]];
    this.rowsLeft[row] = this.unknownsLeft[unknown] = false;
    return { unknown, row, slot };
  }
}
