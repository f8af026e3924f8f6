import type { Entry, System } from '@/core/circuit/compile';
import { GROUND, type ElementValues, type NonlinearElement } from '@/core/circuit/stamper';
import { Values } from '@/core/circuit/values';
import { fillSlots, slotMatrix, type SlotMatrix } from '../linear/matrix';

const { abs } = Math;

/** One nonlinear element with its work space and the slots of its derivatives. */
interface Placed {
  element: NonlinearElement;
  /** Its unknowns and equations as typed arrays, negative where grounded. */
  inputs: Int32Array;
  rows: Int32Array;
  v: Float64Array;
  previous: Float64Array;
  values: ElementValues;
  /** Slot of each (row, input), or -1. */
  slots: Int32Array;
}

/**
 * The large-signal equations  F(x) = G x + f(x) + d/dt (C x + q(x)) - b(t)  of a system: values and
 * Jacobian at any x, without allocation.
 */
export class LargeSignalEquations {
  readonly size: number;
  readonly pattern: SlotMatrix;
  /** Static part G x + f(x) and charges C x + q(x), by equation, at the last `evaluate`. */
  readonly statics: Float64Array;
  readonly charges: Float64Array;
  /** Jacobians of both, by slot. */
  readonly conductances: Float64Array;
  readonly capacitances: Float64Array;
  readonly linear: boolean;
  private readonly placed: Placed[];
  /** Slots that linear parts fill: conductances and capacitances (zeros elsewhere cost nothing). */
  readonly resistiveSlots: Int32Array;
  readonly reactiveSlots: Int32Array;
  private readonly inputUnknowns: Int32Array;
  /** Of the system, and those that only keep a place. */
  readonly entries: readonly Entry[];

  /** @param values of the parameters; after changing them, call `update` */
  constructor(
    readonly system: System,
    readonly values = new Values(system),
  ) {
    const extra: Entry[] = [];
    for (const { part, rows, inputs } of system.elements) {
      for (const row of rows) {
        for (const column of inputs) {
          if (row !== GROUND && column !== GROUND)
            extra.push({ part, row, column, reactive: true, scale: 0, factors: [] });
        }
      }
    }
    // Every net gets a diagonal slot, for the conductances that gmin stepping lends it.
    system.unknowns.forEach((u, i) => {
      if (u.kind === 'net')
        extra.push({ part: '', row: i, column: i, reactive: false, scale: 0, factors: [] });
    });
    this.size = system.unknowns.length;
    this.pattern = slotMatrix(system, extra, values.all);
    this.entries = [...system.entries, ...extra];
    this.linear = system.elements.length === 0;
    let next = system.entries.length;
    this.placed = values.elements.map((element) => {
      const slots = new Int32Array(element.rows.length * element.inputs.length).fill(-1);
      element.rows.forEach((row, r) =>
        element.inputs.forEach((column, c) => {
          if (row !== GROUND && column !== GROUND)
            slots[r * element.inputs.length + c] = this.pattern.slotOfEntry[next++];
        }),
      );
      const [m, n] = [element.rows.length, element.inputs.length];
      const own = emptyValues(m, n);
      return {
        element,
        inputs: Int32Array.from(element.inputs),
        rows: Int32Array.from(element.rows),
        v: new Float64Array(n),
        previous: new Float64Array(n),
        values: own,
        slots,
      };
    });
    this.netSlots = Int32Array.from({ length: this.size }, () => -1);
    system.unknowns.forEach((u, i) => {
      if (u.kind === 'net') this.netSlots[i] = this.pattern.slotOfEntry[next++];
    });
    const slotsOf = (reactive: boolean) =>
      Int32Array.from(
        new Set(
          system.entries.flatMap((entry, i) =>
            entry.reactive === reactive ? [this.pattern.slotOfEntry[i]] : [],
          ),
        ),
      ).sort();
    this.resistiveSlots = slotsOf(false);
    this.reactiveSlots = slotsOf(true);
    this.inputUnknowns = Int32Array.from(
      new Set(system.elements.flatMap((e) => e.inputs.filter((input) => input !== GROUND))),
    );
    this.statics = new Float64Array(this.size);
    this.charges = new Float64Array(this.size);
    this.conductances = new Float64Array(this.pattern.rows.length);
    this.capacitances = new Float64Array(this.pattern.rows.length);
  }

  /** Take over changed values. */
  update(): void {
    fillSlots(this.pattern, this.entries, [], this.values.all);
    this.placed.forEach((placed, i) => (placed.element = this.values.elements[i]));
  }

  /**
   * How F and its Jacobians change at x when one value does, by what its device makes of it: for
   * each element of its part the difference between two values of it.
   *
   * @param visit called with the element's rows and inputs, the slots of its derivatives and the
   *   differences of all four
   */
  eachDifference(
    x: Float64Array,
    parameter: number,
    [low, high]: readonly [number, number],
    visit: (rows: Int32Array, slots: Int32Array, difference: ElementValues) => void,
  ): void {
    const below = this.values.elementsWith(parameter, low);
    const above = this.values.elementsWith(parameter, high);
    below.forEach(({ at, element }, i) => {
      const { inputs, rows, slots } = this.placed[at];
      const v = Float64Array.from(inputs, (input) => (input < 0 ? 0 : x[input]));
      const [a, b] = [element, above[i].element].map((law) => {
        const out = emptyValues(rows.length, inputs.length);
        law.evaluate(v, out);
        return out;
      });
      const less = (p: Float64Array, q: Float64Array) => q.map((y, k) => y - p[k]);
      visit(rows, slots, {
        current: less(a.current, b.current),
        charge: less(a.charge, b.charge),
        conductance: less(a.conductance, b.conductance),
        capacitance: less(a.capacitance, b.capacitance),
        bias: b.bias - a.bias,
      });
    });
  }

  /** The largest |move| among the unknowns that devices depend on, volts. */
  largestInput(move: Float64Array): number {
    let largest = 0;
    for (const input of this.inputUnknowns) {
      const size = abs(move[input]);
      if (!(size <= largest)) largest = size;
    }
    return largest;
  }

  /** Diagonal slot of each net, -1 for other unknowns. */
  readonly netSlots: Int32Array;

  /**
   * Evaluate everything at `x`. With `previous` given, junctions may be held back towards it; the
   * equations are then those of the held-back point, extended along their tangents to x.
   *
   * @returns the part that was held back most, or undefined when none was
   */
  evaluate(x: Float64Array, previous?: Float64Array): string | undefined {
    const { pattern, statics, charges, conductances, capacitances } = this;
    const { rows: slotRows, columns: slotColumns, g, c } = pattern;
    for (let slot = 0; slot < g.length; slot++) {
      conductances[slot] = g[slot];
      capacitances[slot] = c[slot];
    }
    for (let i = 0; i < statics.length; i++) statics[i] = charges[i] = 0;
    const { resistiveSlots, reactiveSlots } = this;
    for (let k = 0; k < resistiveSlots.length; k++) {
      const slot = resistiveSlots[k];
      statics[slotRows[slot]] += g[slot] * x[slotColumns[slot]];
    }
    for (let k = 0; k < reactiveSlots.length; k++) {
      const slot = reactiveSlots[k];
      charges[slotRows[slot]] += c[slot] * x[slotColumns[slot]];
    }
    let held: string | undefined;
    for (const { element, inputs, rows, v, previous: before, values, slots } of this.placed) {
      const n = inputs.length;
      for (let k = 0; k < n; k++) {
        v[k] = inputs[k] < 0 ? 0 : x[inputs[k]];
        if (previous) before[k] = inputs[k] < 0 ? 0 : previous[inputs[k]];
      }
      const limited =
        previous !== undefined && element.limit !== undefined && element.limit(v, before);
      if (limited) held = element.part;
      element.evaluate(v, values);
      const { current, charge, conductance, capacitance } = values;
      for (let r = 0; r < rows.length; r++) {
        const row = rows[r];
        if (row < 0) continue;
        statics[row] += current[r];
        charges[row] += charge[r];
        for (let k = 0, at = r * n; k < n; k++, at++) {
          const slot = slots[at];
          if (slot >= 0) {
            conductances[slot] += conductance[at];
            capacitances[slot] += capacitance[at];
          }
          if (!limited) continue;
          // Held back: the tangent leads from the held point to x (a grounded input may be held too).
          const off = (inputs[k] < 0 ? 0 : x[inputs[k]]) - v[k];
          statics[row] += conductance[at] * off;
          charges[row] += capacitance[at] * off;
        }
      }
    }
    return held;
  }

  /** C x: the charges of a linear circuit. */
  linearCharges(x: Float64Array, charges: Float64Array): void {
    const { reactiveSlots } = this;
    const { rows, columns, c } = this.pattern;
    for (let i = 0; i < charges.length; i++) charges[i] = 0;
    for (let k = 0; k < reactiveSlots.length; k++) {
      const slot = reactiveSlots[k];
      charges[rows[slot]] += c[slot] * x[columns[slot]];
    }
  }

  /** The elements' present values, for their noise and for reports. */
  elementValues(): { element: NonlinearElement; values: ElementValues }[] {
    return this.placed;
  }

  /** Small-signal entries of the elements about the last evaluated point; always the same places. */
  smallSignalEntries(): Entry[] {
    const entries: Entry[] = [];
    for (const { element, values } of this.placed) {
      const { part, rows, inputs } = element;
      rows.forEach((row, r) =>
        inputs.forEach((column, c) => {
          if (row === GROUND || column === GROUND) return;
          const at = r * inputs.length + c;
          const place = { part, row, column, factors: [] };
          entries.push({ ...place, reactive: false, scale: values.conductance[at] });
          entries.push({ ...place, reactive: true, scale: values.capacitance[at] });
        }),
      );
    }
    return entries;
  }
}

function emptyValues(rows: number, inputs: number): ElementValues {
  return {
    current: new Float64Array(rows),
    conductance: new Float64Array(rows * inputs),
    charge: new Float64Array(rows),
    capacitance: new Float64Array(rows * inputs),
    bias: 0,
  };
}
