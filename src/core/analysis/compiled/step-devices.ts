import type { Arithmetic, Flow, Law } from '@/core/circuit/laws/law';
import type { NonlinearElement } from '@/core/circuit/stamper';
import { LaneArithmetic, type Lanes } from './lane-arithmetic';
import { ONE, ZERO, type Algebra, type Term } from './terms';
import { V128, type Code } from './wasm';

/** An element's law, with the unknowns and rows of the circuit that it is joined to; -1 for ground. */
export interface Installed {
  law: Law;
  drops: (readonly [plus: number, minus: number])[];
  flows: {
    from: number;
    to: number;
    /** Drops that its current or charge depends on. */
    by: number[];
    charged: boolean;
  }[];
}

/** For asking a law which of its numbers there are at all. */
const hollow = ((): Arithmetic<number> => {
  const none = () => 0;
  return {
    number: none,
    add: none,
    sub: none,
    mul: none,
    div: none,
    neg: none,
    abs: none,
    sqrt: none,
    min: none,
    max: none,
    exp: none,
    expm1: none,
    log: none,
    tanh: none,
    ifAbove: none,
  };
})();

/** A law of currents alone. */
export const withoutCharges = (law: Law): Law => ({
  ...law,
  name: `${law.name}, held`,
  write: (a, drops, constants) =>
    law
      .write(a, drops, constants)
      .flatMap(({ from, to, current, conductance }) =>
        current === undefined ? [] : [{ from, to, current, conductance }],
      ),
});

export function install({ inputs, rows }: NonlinearElement, law: Law): Installed {
  const of = (list: readonly number[], i: number) => (i < 0 ? -1 : list[i]);
  const zeros = (list: readonly unknown[]) => list.map(() => 0);
  return {
    law,
    drops: law.drops.map(({ plus, minus }) => [of(inputs, plus), of(inputs, minus)]),
    flows: law.write(hollow, zeros(law.drops), zeros(law.constants)).map((flow) => ({
      from: of(rows, flow.from),
      to: of(rows, flow.to),
      by: law.drops.flatMap((_, j) =>
        flow.conductance?.[j] === undefined && flow.capacitance?.[j] === undefined ? [] : [j],
      ),
      charged: flow.charge !== undefined,
    })),
  };
}

/** Two like devices that are worked out side by side, or one twice. */
export type DevicePair = readonly [Installed, Installed];

export function inPairs(devices: readonly Installed[]): DevicePair[] {
  const waiting = new Map<string, Installed>();
  const pairs: DevicePair[] = [];
  for (const device of devices) {
    const partner = waiting.get(device.law.name);
    if (partner) {
      pairs.push([partner, device]);
      waiting.delete(device.law.name);
    } else waiting.set(device.law.name, device);
  }
  for (const device of waiting.values()) pairs.push([device, device]);
  return pairs;
}

/** Levels of the stretches of a step's code: once a step, each pass of Newton's method, at its end. */
export const STEP = 0;
export const PASS = 1;
export const FINAL = 2;

/** Called with what a device adds to the Jacobian at a row and an unknown, or takes from what the row lacks. */
export interface Stamps {
  slope(row: number, unknown: number, value: Term): void;
  pull(row: number, value: Term): void;
}

/** Writes what two like devices add to each pass, and to the charges at the end of a step. */
export class PairCode {
  /** The drops that the laws are taken at; a pass moves them. */
  private readonly at: number[] = [];
  /** Where they were at the start. */
  private readonly started: number[] = [];
  /** Where the last pass found them. */
  private readonly solved: Lanes[] = [];
  /** Slopes of what flows. */
  private readonly slopes: { flow: number; slopes: (Lanes | undefined)[] }[] = [];
  private readonly charges: { flow: number; base: Lanes; slopes: (Lanes | undefined)[] }[] = [];
  private readonly step: Code;
  private readonly pass: Code;
  private readonly final: Code;

  /**
   * @param constants where the pair's constants stand, and 1 / bend of each drop after them
   * @param pace where 2/h stands
   * @param lastMove of a pass, as a part of a law's bend
   */
  constructor(
    private readonly algebra: Algebra,
    private readonly pair: DevicePair,
    private readonly constants: number,
    private readonly pace: number,
    private readonly lastMove: number,
  ) {
    [this.step, this.pass, this.final] = algebra.loops;
  }

  /** Only one device stands in both lanes. */
  private get lanes(): (0 | 1)[] {
    return this.pair[0] === this.pair[1] ? [0] : [0, 1];
  }

  /**
   * Where the passes begin.
   *
   * @param start of an unknown
   */
  begin(start: (unknown: number) => Term): void {
    this.pair[0].law.drops.forEach((_, j) => {
      const started = this.dropInto(this.step, j, start);
      const at = this.step.local(V128);
      this.step.get(started).set(at);
      this.started.push(started);
      this.at.push(at);
    });
  }

  /** Slopes and right sides at the present drops. */
  evaluate(stamps: Stamps): void {
    const { law } = this.pair[0];
    const a = new LaneArithmetic(this.pass);
    const drops = this.at.map((local): Lanes => ({ local }));
    const constants = law.constants.map((_, i): Lanes => ({ at: this.constants + 16 * i }));
    law.write(a, drops, constants).forEach((flow, f) => this.stampFlow(a, flow, f, drops, stamps));
  }

  private stampFlow(
    a: LaneArithmetic,
    flow: Flow<Lanes>,
    f: number,
    drops: readonly Lanes[],
    stamps: Stamps,
  ): void {
    const pace: Lanes = { at: this.pace };
    const { conductance = [], capacitance = [], current, charge } = flow;
    const slopes = drops.map((_, j) => {
      const c = capacitance[j] && a.mul(pace, capacitance[j]);
      const g = conductance[j];
      return g && c ? a.add(g, c) : (g ?? c);
    });
    const stored = charge && a.mul(pace, charge);
    let right = current && stored ? a.add(current, stored) : (current ?? stored);
    if (!right) return;
    slopes.forEach((slope, j) => {
      if (!slope) return;
      const moved = a.sub(drops[j], { local: this.started[j] });
      right = a.sub(right!, a.mul(slope, moved));
    });
    this.slopes.push({ flow: f, slopes });
    if (charge) {
      let base = charge;
      capacitance.forEach((c, j) => {
        if (c) base = a.sub(base, a.mul(c, drops[j]));
      });
      this.charges.push({ flow: f, base, slopes: [...capacitance] });
    }
    for (const lane of this.lanes) {
      const { drops: joined, flows } = this.pair[lane];
      const { from, to } = flows[f];
      const ways = [
        [from, false],
        [to, true],
      ] as const;
      const pull = this.lane(PASS, right, lane);
      for (const [row, negative] of ways)
        if (row >= 0) stamps.pull(row, negative ? this.algebra.negative(pull) : pull);
      slopes.forEach((slope, j) => {
        if (!slope) return;
        const value = this.lane(PASS, slope, lane);
        const less = this.algebra.negative(value);
        const [plus, minus] = joined[j];
        for (const [row, negative] of ways) {
          if (row < 0) continue;
          if (plus >= 0) stamps.slope(row, plus, negative ? less : value);
          if (minus >= 0) stamps.slope(row, minus, negative ? value : less);
        }
      });
    }
  }

  /**
   * The drops of the solution, how far they are from where the laws were taken, and where they are
   * taken next.
   *
   * @param change of an unknown from the start
   * @param settled local that loses its bits where a move is too large to be the last
   */
  move(change: (unknown: number) => Term, settled: number): void {
    const { law } = this.pair[0];
    const a = new LaneArithmetic(this.pass);
    law.drops.forEach(({ most }, j) => {
      const at: Lanes = { local: this.at[j] };
      const moved: Lanes = { local: this.dropInto(this.pass, j, change) };
      const solved = a.add({ local: this.started[j] }, moved);
      this.solved.push(solved);
      const move = a.sub(solved, at);
      const perBend: Lanes = { at: this.constants + 16 * (law.constants.length + j) };
      a.push(a.mul(a.abs(move), perBend));
      this.pass.pairOf(this.lastMove).pair('atMost').get(settled).pair('and').set(settled);
      if (most === undefined) a.push(solved);
      else a.push(a.add(at, a.max(a.min(move, a.number(most)), a.number(-most))));
      this.pass.set(this.at[j]);
    });
  }

  /** Whether it depends on one of these unknowns. */
  touches(unknowns: { has(unknown: number): boolean }): boolean {
    return this.pair.some(({ drops }) => drops.flat().some((u) => unknowns.has(u)));
  }

  /** What flows more when unknowns change by so much. */
  changeInto(change: (unknown: number) => Term, visit: (row: number, value: Term) => void): void {
    const drops = this.pair[0].law.drops.map((_, j): Lanes => ({
      local: this.dropInto(this.final, j, change),
    }));
    this.flowsInto(this.slopes, drops, visit);
  }

  /** Charges of the solution, along the tangents that it was found by. */
  chargesInto(visit: (row: number, value: Term) => void): void {
    this.flowsInto(this.charges, this.solved, visit);
  }

  private flowsInto(
    flows: readonly { flow: number; base?: Lanes; slopes: (Lanes | undefined)[] }[],
    drops: readonly Lanes[],
    visit: (row: number, value: Term) => void,
  ): void {
    const a = new LaneArithmetic(this.final);
    for (const { flow, base, slopes } of flows) {
      let total = base;
      slopes.forEach((slope, j) => {
        if (!slope) return;
        const part = a.mul(slope, drops[j]);
        total = total ? a.add(total, part) : part;
      });
      if (!total) continue;
      for (const lane of this.lanes) {
        const { from, to } = this.pair[lane].flows[flow];
        const value = this.lane(FINAL, total, lane);
        if (from >= 0) visit(from, value);
        if (to >= 0) visit(to, this.algebra.negative(value));
      }
    }
  }

  /** A drop of both devices in a local. */
  private dropInto(code: Code, j: number, value: (unknown: number) => Term): number {
    const { algebra } = this;
    const [first, second] = this.pair.map(({ drops }) => {
      const [plus, minus] = drops[j].map((unknown) => (unknown < 0 ? ZERO : value(unknown)));
      return algebra.sum(plus, [{ negative: true, a: ONE, b: minus }]);
    });
    const level = algebra.loops.indexOf(code);
    algebra.push(first, level);
    code.pair('splat');
    if (this.lanes.length > 1) {
      algebra.push(second, level);
      code.secondLane();
    }
    const local = code.local(V128);
    code.set(local);
    return local;
  }

  private lane(level: number, x: Lanes, lane: 0 | 1): Term {
    const code = this.algebra.loops[level];
    new LaneArithmetic(code).push(x);
    code.lane(lane);
    return this.algebra.local(level);
  }
}
