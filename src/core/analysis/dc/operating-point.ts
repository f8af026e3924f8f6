import { deviceOf } from '@/core/circuit/devices';
import { checkWiring } from '@/core/circuit/check';
import { compile } from '@/core/circuit/compile';
import type { Circuit } from '@/core/circuit/schema';
import { OperatingPointSearch } from './search';

export interface OperatingPoint {
  /** Volts by net. */
  nodes: Record<string, number>;
  /** Currents of parts that carry one of their own (sources, coils, amplifiers), amperes. */
  currents: Record<string, number>;
  /** Terminal currents of devices, amperes into the device, by part and row. */
  devices: Record<string, number[]>;
  /** Power taken by resistors and devices, watts. */
  power: Record<string, number>;
  /** Newton iterations it took, over all stages of the search. */
  iterations: number;
  /** Further points at which it can rest or balance, volts by net; absent where none was found. */
  others?: Record<string, number>[];
}

/** Where a circuit comes to rest, with waveforms at the value they have before t = 0. */
export function operatingPoint(
  circuit: Circuit,
  options: { signal?: AbortSignal } = {},
): OperatingPoint {
  checkWiring(circuit, 'dc');
  const system = compile(circuit, 'large-signal');
  const search = new OperatingPointSearch(system, options.signal);
  const x = search.find();
  const { iterations } = search;
  const others = search.others(x);
  const at = (net: string) => (net === circuit.ground ? 0 : x[system.netIndex.get(net)!]);
  const power: Record<string, number> = {};
  for (const part of circuit.parts) {
    const taken = deviceOf(part.kind).takes?.(part, at);
    if (taken !== undefined) power[part.id] = taken;
  }
  const devices: Record<string, number[]> = {};
  for (const { element, values } of search.equations.elementValues()) {
    devices[element.part] = [...(devices[element.part] ?? []), ...values.current];
    const taken = element.rows.reduce(
      (sum, row, r) =>
        sum + (row < 0 || system.unknowns[row].kind !== 'net' ? 0 : x[row] * values.current[r]),
      0,
    );
    power[element.part] = (power[element.part] ?? 0) + taken;
  }
  const nodesOf = (point: Float64Array) =>
    Object.fromEntries([...system.netIndex].map(([net, i]) => [net, point[i]]));
  return {
    nodes: nodesOf(x),
    currents: Object.fromEntries([...system.branchIndex].map(([part, i]) => [part, x[i]])),
    devices,
    power,
    iterations,
    ...(others.length > 0 ? { others: others.map(nodesOf) } : {}),
  };
}
