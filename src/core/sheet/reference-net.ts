import type { Part } from '@/core/circuit/schema';
import { deviceOf } from '@/core/circuit/devices';
import type { Supply } from './schema';

/** The net that op-amp stages take for ground where a single supply feeds them: half of it. */
export const REFERENCE = 'half';
/** The parts that make it, by name. */
export const REFERENCE_OHMS = ['reference.upper', 'reference.lower'] as const;
export const REFERENCE_FARADS = 'reference.bypass';

/**
 * What a half-supply reference is made of. For signals both rails are ground, so that its two resistors
 * lie in parallel from it to there, with the capacitor. All voltages are told from half the supply,
 * where it stands at rest.
 */
export function referenceParts(supply: Supply | undefined): Part[] {
  if (supply?.is !== 'single') return [];
  const { ohms, farads } = supply;
  return [
    ...REFERENCE_OHMS.map((id): Part => ({ id, kind: 'resistor', a: REFERENCE, b: '0', ohms })),
    { id: REFERENCE_FARADS, kind: 'capacitor', a: REFERENCE, b: '0', farads },
  ];
}

/** The parts of a stage with their ground at the reference, where it has op-amps; others stay. */
export function aboutReference(parts: Part[], supply: Supply | undefined): Part[] {
  if (supply?.is !== 'single' || !parts.some((p) => p.kind === 'op-amp')) return parts;
  return parts.map((part) => {
    const nets = Object.entries(deviceOf(part.kind).terminals(part)).filter(
      ([name, net]) => net === '0' && name in part,
    );
    return { ...part, ...Object.fromEntries(nets.map(([name]) => [name, REFERENCE])) };
  });
}
