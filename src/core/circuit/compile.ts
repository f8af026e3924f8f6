import { ReedError } from '@/core/errors';
import { deviceOf } from './devices';
import { netsOf, type Circuit, type Part } from './schema';
import {
  GROUND,
  type Factor,
  type Law,
  type NoiseTerm,
  type NonlinearElement,
  type Product,
  type SourceTerm,
  type Stamper,
  type StampMode,
} from './stamper';

/** What an unknown of the equations stands for. */
export interface Unknown {
  kind: 'net' | 'branch';
  /** Net name, or part id of a branch. */
  name: string;
  label: string;
}

/**
 * A value that may be varied without compiling again: an independent one, which a field of its part
 * holds, or one that the equations are written in and that follows from independent ones.
 */
export interface Parameter {
  part: string;
  name: string;
  /** In the circuit that was compiled. */
  value: number;
  /** The independent ones that a derived one follows from, and how. */
  by?: { of: readonly number[]; law: Law };
}

/** One term of G or C: `scale` times powers of parameters, at (row, column). */
export interface Entry extends Product {
  part: string;
  row: number;
  column: number;
  reactive: boolean;
}

/** A part whose law is no product of its values: it writes elements. */
export interface Entangled {
  part: Part;
  /** Its independent values. */
  own: readonly number[];
  /** Its values in the order it declares them, its unknowns, its elements. */
  declared: readonly number[];
  unknowns: readonly number[];
  elements: readonly number[];
}

/** The equations of a circuit: G x + C dx/dt + f(x) + dq(x)/dt = b(t). */
export interface System {
  circuit: Circuit;
  unknowns: Unknown[];
  parameters: Parameter[];
  entries: Entry[];
  sources: SourceTerm[];
  elements: NonlinearElement[];
  noise: NoiseTerm[];
  mode: StampMode;
  /** Places of the independent values, by part and name. */
  places: ReadonlyMap<string, ReadonlyMap<string, number>>;
  /** Parts whose laws are no products of their values. */
  entangled: Entangled[];
  netIndex: ReadonlyMap<string, number>;
  branchIndex: ReadonlyMap<string, number>;
}

/**
 * Write down the equations of a circuit by modified nodal analysis: one unknown for each net, one
 * more for each current a part needs
 * (C. W. Ho, A. E. Ruehli, P. A. Brennan, "The Modified Nodal Approach to Network Analysis",
 * IEEE Trans. Circuits and Systems, 1975).
 *
 * @param mode "large-signal" keeps what only matters there (slew limits); see `StampMode`
 * @throws ReedError `circuit` where a part refers to another that is not there
 */
export function compile(circuit: Circuit, mode: StampMode = 'small-signal'): System {
  const unknowns: Unknown[] = netsOf(circuit).map((name) => ({
    kind: 'net',
    name,
    label: `net ${name}`,
  }));
  const netIndex = new Map(unknowns.map((u, i) => [u.name, i]));
  const branchIndex = new Map<string, number>();
  const parameters: Parameter[] = [];
  const places = new Map<string, Map<string, number>>();
  const entangled: Entangled[] = [];
  const entries: Entry[] = [];
  const sources: SourceTerm[] = [];
  const elements: NonlinearElement[] = [];
  const noise: NoiseTerm[] = [];
  let part = circuit.parts[0];

  const missing = (id: string): ReedError =>
    new ReedError(
      'circuit',
      `Part “${part.id}” refers to an inductor “${id}”, which the circuit does not have.`,
      { part: part.id },
    );
  const add =
    (reactive: boolean) =>
    (row: number, column: number, scale: number, ...factors: Factor[]) => {
      if (row !== GROUND && column !== GROUND)
        entries.push({ part: part.id, row, column, reactive, scale, factors });
    };
  const stamper: Stamper = {
    mode,
    net: (name) => netIndex.get(name) ?? GROUND,
    unknown(label) {
      const index =
        unknowns.push({ kind: 'branch', name: part.id, label: `${label} of ${part.id}` }) - 1;
      if (!branchIndex.has(part.id)) branchIndex.set(part.id, index);
      return index;
    },
    branchOf(id) {
      const index = branchIndex.get(id);
      if (index === undefined) throw missing(id);
      return index;
    },
    parameter(name, value) {
      const index = parameters.push({ part: part.id, name, value }) - 1;
      let own = places.get(part.id);
      if (!own) places.set(part.id, (own = new Map<string, number>()));
      own.set(name, index);
      return index;
    },
    derived(name, of, law) {
      const { value } = law(of.map((i) => parameters[i].value));
      return parameters.push({ part: part.id, name, value, by: { of, law } }) - 1;
    },
    parameterOf(id, name) {
      const index = places.get(id)?.get(name);
      if (index === undefined) throw missing(id);
      return index;
    },
    resistive: add(false),
    reactive: add(true),
    source(term) {
      if (term.row !== GROUND) sources.push({ ...term, part: part.id });
    },
    nonlinear: (element) => elements.push({ ...element, part: part.id }),
    noise: (term) => noise.push({ ...term, part: part.id }),
  };

  const order = [...circuit.parts].sort(
    (a, b) => Number(!!deviceOf(a.kind).stampLast) - Number(!!deviceOf(b.kind).stampLast),
  );
  for (part of order) {
    const [p, u, e] = [parameters.length, unknowns.length, elements.length];
    deviceOf(part.kind).stamp(part, stamper);
    const declared = upTo(p, parameters.length);
    if (elements.length === e) continue;
    const own = declared.filter((i) => parameters[i].by === undefined);
    const [made, laws] = [upTo(u, unknowns.length), upTo(e, elements.length)];
    entangled.push({ part, own, declared, unknowns: made, elements: laws });
  }
  return {
    mode,
    places,
    entangled,
    circuit,
    unknowns,
    parameters,
    entries,
    sources,
    elements,
    noise,
    netIndex,
    branchIndex,
  };
}

const upTo = (from: number, to: number): number[] =>
  Array.from({ length: to - from }, (_, i) => from + i);
