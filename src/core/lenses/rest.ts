import { operatingPoint } from '@/core/analysis/dc/operating-point';
import { deviceOf } from '@/core/circuit/devices';
import type { Part } from '@/core/circuit/schema';
import type { Sheet } from '@/core/sheet/schema';
import { overLayers, withoutPause, type OverLayers, type Pause } from './layers';

/** One device as it stands without a signal. */
export interface AtRest {
  part: string;
  kind: string;
  /** Volts against ground, by terminal. */
  terminals: { name: string; volts: number }[];
  /** Into its first terminal, amperes; what a source or an amplifier gives. */
  amps: number | null;
  /** Watts it takes. */
  watts: number | null;
}

/** Where a circuit comes to rest, and where else it could. */
export interface Rest {
  devices: AtRest[];
  /** Further points at which it can rest or balance: volts of the nets that differ most, three at most. */
  others: { net: string; volts: number }[][];
}

const TELLING = 3;

/** The nets by which another point is told from this one. */
const tellingNets = (nodes: Record<string, number>, other: Record<string, number>) =>
  Object.entries(other)
    .map(([net, volts]) => ({ net, volts, apart: Math.abs(volts - nodes[net]) }))
    .sort((a, b) => b.apart - a.apart)
    .slice(0, TELLING)
    .map(({ net, volts }) => ({ net, volts }));

/** The source of the signal, and pieces of wire: nothing of theirs is left without a signal. */
const givesNothing = (part: Part): boolean => part.kind === 'voltage-source' && !part.dcVolts;

/** Where every device comes to rest, as built: supplies, amplifiers, transistors, diodes. */
export function restLens(sheet: Sheet, pause: Pause = withoutPause): Promise<OverLayers<Rest>> {
  return overLayers(sheet, pause, (circuit, { version }) => {
    if (version === 'ideal') return { devices: [], others: [] };
    const { nodes, currents, devices, power, others = [] } = operatingPoint(circuit);
    const atRest = circuit.parts
      .filter((part) => !deviceOf(part.kind).passive && !givesNothing(part))
      .map((part): AtRest => {
        const terminals = deviceOf(part.kind).terminals(part);
        return {
          part: part.id,
          kind: part.kind,
          terminals: Object.entries(terminals).map(([name, net]) => ({
            name,
            volts: net === circuit.ground ? 0 : (nodes[net] ?? 0),
          })),
          amps: devices[part.id]?.[0] ?? currents[part.id] ?? null,
          watts: power[part.id] ?? null,
        };
      });
    return { devices: atRest, others: others.map((other) => tellingNets(nodes, other)) };
  });
}
