import type { Entangled, System } from './compile';
import { deviceOf } from './devices';
import type { Circuit, Part } from './schema';
import type { NonlinearElement, Slope, Stamper } from './stamper';

/** The objects of a part that hold numbers by name: the part itself, its model, what that holds. */
const NESTS = ['model', 'supply'] as const;

/**
 * The part with one of its values changed.
 *
 * @param name of the field of the part or of its model, as its device declared it
 */
export function withValue(part: Part, name: string, value: number): Part {
  const changed = setIn(part, name, value);
  if (!changed) throw new Error(`A ${part.kind} has no value “${name}”.`);
  return changed;
}

/** One of the values of a part. */
export function valueOf(part: Part, name: string): number {
  const found = getIn(part, name);
  if (found === undefined) throw new Error(`A ${part.kind} has no value “${name}”.`);
  return found;
}

function getIn(holder: object, name: string): number | undefined {
  const own = (holder as Record<string, unknown>)[name];
  if (typeof own === 'number') return own;
  for (const nest of NESTS) {
    const inner = (holder as Record<string, unknown>)[nest];
    const found = isObject(inner) ? getIn(inner, name) : undefined;
    if (found !== undefined) return found;
  }
  return undefined;
}

function setIn<T extends object>(holder: T, name: string, value: number): T | undefined {
  if (name in holder) return { ...holder, [name]: value };
  for (const nest of NESTS) {
    const inner = (holder as Record<string, unknown>)[nest];
    const changed = isObject(inner) ? setIn(inner, name, value) : undefined;
    if (changed) return { ...holder, [nest]: changed };
  }
  return undefined;
}

/**
 * The independent values of another circuit of the same structure: the same parts on the same nets,
 * different only in numbers that were declared as values.
 *
 * @returns by parameter; undefined where the other needs equations of its own
 */
export function valuesOfAlike(system: System, circuit: Circuit): Float64Array | undefined {
  const before = system.circuit;
  if (before.ground !== circuit.ground || before.parts.length !== circuit.parts.length)
    return undefined;
  const values = Float64Array.from(system.parameters, (p) => p.value);
  for (let i = 0; i < circuit.parts.length; i++) {
    const [was, is] = [before.parts[i], circuit.parts[i]];
    if (was === is) continue;
    if (was.id !== is.id || was.kind !== is.kind) return undefined;
    if (!readAlike(was, is, system.places.get(was.id) ?? NONE, values)) return undefined;
  }
  return values;
}

const NONE: ReadonlyMap<string, number> = new Map();

/** Compare two holders of numbers, field by field; values that differ are written down. */
function readAlike(
  was: object,
  is: object,
  places: ReadonlyMap<string, number>,
  values: Float64Array,
): boolean {
  const names = Object.keys(is);
  if (names.length !== Object.keys(was).length) return false;
  return names.every((name) => {
    const a = (was as Record<string, unknown>)[name];
    const b = (is as Record<string, unknown>)[name];
    if (a === b || name === 'note') return true;
    if (isObject(a) && isObject(b))
      return readAlike(a, b, (NESTS as readonly string[]).includes(name) ? places : NONE, values);
    const place = places.get(name);
    // What is nought may have been left out of the equations.
    if (place === undefined || typeof a !== 'number' || typeof b !== 'number' || !a || !b)
      return false;
    values[place] = b;
    return true;
  });
}

const isObject = (x: unknown): x is object => typeof x === 'object' && x !== null;

/**
 * What of a system depends on values in more ways than as factors: derived values, and the laws of
 * devices, whose constants they are. Laws are written anew by the very devices that wrote the
 * equations, so that they cannot differ from what a fresh compilation gives.
 */
export class Values {
  /** By parameter. Write independent ones here, then call `refresh`. */
  readonly all: Float64Array;
  readonly elements: NonlinearElement[];
  /** What the elements were last made for, and how often they were made. */
  private readonly made: Float64Array;
  revision = 0;

  /** @param other whose values to begin with */
  constructor(
    readonly system: System,
    other?: Values,
  ) {
    this.all = other?.all.slice() ?? Float64Array.from(system.parameters, (p) => p.value);
    this.made = other?.made.slice() ?? this.all.slice();
    this.elements = (other?.elements ?? system.elements).slice();
  }

  /** Bring derived values and laws up to date with the independent values. */
  refresh(): void {
    const { all, made, system } = this;
    for (let i = 0; i < system.parameters.length; i++) {
      const { by } = system.parameters[i];
      if (by) all[i] = by.law(this.independents(by.of)).value;
    }
    for (const entangled of system.entangled) {
      const { part, own } = entangled;
      if (own.every((i) => all[i] === made[i])) continue;
      for (const i of own) made[i] = all[i];
      this.revision++;
      let next = 0;
      for (const element of elementsOf(system, entangled, this.partOf(part, own)))
        this.elements[entangled.elements[next++]] = element;
    }
  }

  /** Slopes of the derived values by the independent ones, for the present values. */
  slopes(): ReadonlyMap<number, readonly Slope[]> {
    const slopes = new Map<number, readonly Slope[]>();
    this.system.parameters.forEach(({ by }, i) => {
      if (!by) return;
      const found = by.law(this.independents(by.of)).slopes;
      slopes.set(
        i,
        by.of.map((own, k): Slope => [own, found[k]]),
      );
    });
    return slopes;
  }

  private independents(of: readonly number[]): number[] {
    const own: number[] = [];
    for (const i of of) own.push(this.all[i]);
    return own;
  }

  /** The elements of a part with one of its values changed; nothing else is touched. */
  elementsWith(parameter: number, value: number): { at: number; element: NonlinearElement }[] {
    const entangled = this.system.entangled.find((e) => e.own.includes(parameter));
    if (!entangled) return [];
    const { part, own } = entangled;
    const { name } = this.system.parameters[parameter];
    const changed = withValue(this.partOf(part, own), name, value);
    const found = elementsOf(this.system, entangled, changed);
    return entangled.elements.map((at, i) => ({ at, element: found[i] }));
  }

  /** The parts that write elements, with their present values. */
  parts(): Part[] {
    return this.system.entangled.map(({ part, own }) => this.partOf(part, own));
  }

  private partOf(part: Part, own: readonly number[]): Part {
    let now = part;
    for (const i of own) {
      const { name, value } = this.system.parameters[i];
      if (this.all[i] !== value) now = withValue(now, name, this.all[i]);
    }
    return now;
  }
}

/** Let a part write its elements down again. */
function elementsOf(
  system: System,
  { declared, unknowns }: Entangled,
  part: Part,
): NonlinearElement[] {
  const found: NonlinearElement[] = [];
  let [value, unknown] = [0, 0];
  const nothing = () => undefined;
  const stamper: Stamper = {
    mode: system.mode,
    net: (name) => system.netIndex.get(name) ?? -1,
    unknown: () => unknowns[unknown++],
    branchOf: (id) => system.branchIndex.get(id)!,
    parameter: () => declared[value++],
    derived: () => declared[value++],
    parameterOf: (id, name) => system.places.get(id)!.get(name)!,
    resistive: nothing,
    reactive: nothing,
    source: nothing,
    noise: nothing,
    nonlinear: (element) => found.push({ ...element, part: part.id }),
  };
  deviceOf(part.kind).stamp(part, stamper);
  return found;
}
