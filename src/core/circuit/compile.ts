import { ReedError } from '@/core/errors';
import { deviceOf } from './devices';
import { netsOf, type Circuit } from './schema';
import {
  GROUND,
  type Factor,
  type NoiseTerm,
  type NonlinearElement,
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

/** A part value that may be varied without compiling again. */
export interface Parameter {
  part: string;
  name: string;
  value: number;
}

/** One term of G or C: `scale` times powers of parameters, at (row, column). */
export interface Entry {
  row: number;
  column: number;
  reactive: boolean;
  scale: number;
  factors: readonly Factor[];
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
  const parameterIndex = new Map<string, number>();
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
        entries.push({ row, column, reactive, scale, factors });
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
      parameterIndex.set(`${part.id} ${name}`, index);
      return index;
    },
    parameterOf(id, name) {
      const index = parameterIndex.get(`${id} ${name}`);
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
  for (part of order) deviceOf(part.kind).stamp(part, stamper);
  return {
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

/** The value of an entry for given parameter values. */
export function entryValue(entry: Entry, values: ArrayLike<number>): number {
  let value = entry.scale;
  for (const [parameter, power] of entry.factors) {
    const p = values[parameter];
    value *= power === 1 ? p : power === -1 ? 1 / p : p ** power;
  }
  return value;
}
