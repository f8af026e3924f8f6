import { operatingPoint } from '@/core/analysis/dc/operating-point';
import { deviceOf } from '@/core/circuit/devices';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { REFERENCE, REFERENCE_OHMS } from '@/core/sheet/reference-net';
import type { Supply } from '@/core/sheet/schema';

/**
 * How far nets of a circuit really stand above common: what is joined to half of a single supply, by
 * anything but a capacitor, is told from there.
 *
 * @returns volts to be added, by net
 */
export function aboveCommon(circuit: Circuit, supply: Supply | undefined): (net: string) => number {
  if (supply?.is !== 'single') return () => 0;
  const nextTo = new Map<string, Set<string>>();
  for (const part of circuit.parts) {
    if (part.kind === 'capacitor' || (REFERENCE_OHMS as readonly string[]).includes(part.id))
      continue;
    const nets = Object.values(deviceOf(part.kind).terminals(part)).filter(
      (net) => net !== circuit.ground,
    );
    for (const net of nets) {
      const near = nextTo.get(net) ?? new Set();
      for (const other of nets) near.add(other);
      nextTo.set(net, near);
    }
  }
  const lifted = new Set([REFERENCE]);
  // A set that grows while it is gone through is gone through to its end.
  for (const net of lifted) for (const near of nextTo.get(net) ?? []) lifted.add(near);
  return (net) => (lifted.has(net) ? supply.volts / 2 : 0);
}

/** Volts by net without a signal; nothing of a circuit that has no point of rest. */
export function voltsAtRest(circuit: Circuit): Record<string, number> | undefined {
  try {
    return operatingPoint(circuit).nodes;
  } catch (error) {
    if (error instanceof ReedError) return undefined;
    throw error;
  }
}
