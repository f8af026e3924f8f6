import type { Circuit, Part, PartOf } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';

/** How well a bridge knows its ohms: within a part in a hundred, dB. */
export const OHMS_KNOWN_DB = 0.1;

/** A bridge reads no more than this, where nothing else conducts. */
const OPEN_OHMS = 1e11;

/**
 * A circuit without its source, and an ampere into it: the volts there are the ohms that the source sees.
 *
 * @param own the resistor that stands for the source’s own resistance, which is not among them
 * @throws ReedError `circuit` where not one source alone drives it
 */
export function drivenByCurrent(
  { parts, ground, ...rest }: Circuit,
  own: string,
): { circuit: Circuit; probe: string } {
  const sources = parts.filter(
    (p): p is PartOf<'voltage-source'> => p.kind === 'voltage-source' && !!p.acVolts,
  );
  const [source] = sources as readonly (PartOf<'voltage-source'> | undefined)[];
  if (!source || sources.length > 1)
    throw new ReedError(
      'circuit',
      `What the source sees can be told of a circuit that one voltage source drives; this one has ${sources.length}.`,
    );
  const series = parts.find((p) => p.id === own);
  const into = series?.kind === 'resistor' ? series.b : source.plus;
  const driven = parts.flatMap((p): Part[] => {
    if (p === series) return [];
    return p === source
      ? [{ id: p.id, kind: 'current-source', from: source.minus, to: into, acAmps: 1 }]
      : [p];
  });
  driven.push({ id: 'bridge.open', kind: 'resistor', a: into, b: source.minus, ohms: OPEN_OHMS });
  return { circuit: { ...rest, ground, parts: driven }, probe: into };
}
