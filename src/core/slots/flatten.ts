import * as z from 'zod';
import { between, within } from '@/core/quantity/bounds';
import { defineSlot } from './slot-kind';

const coilSchema = z.strictObject({
  is: z.literal('flatten-coil'),
  /** The voice coil whose rise is made up for. */
  reOhms: between(0.5, 1000, ' Ω'),
  leHenries: within('henries'),
});
export type FlattenCoilSlot = z.infer<typeof coilSchema>;

/**
 * A resistor and a capacitor across a driver, the dual of its voice coil: R = Re, C = Le/Re^2 make the
 * two together a resistance Re at every frequency (O. J. Zobel, "Theory and Design of Uniform and
 * Composite Electric Wave-Filters", Bell Syst. Tech. J. 2, 1923).
 */
export const flattenCoil = defineSlot<FlattenCoilSlot>({
  is: 'flatten-coil',
  schema: coilSchema,
  title: 'Flatten the voice coil',
  about: 'Resistor and capacitor across the driver: its impedance no longer rises',
  name: () => 'Voice coil flattened',
  arms: () => [
    {
      at: 'across',
      join: 'row',
      parts: [
        ['resistor', 'R1'],
        ['capacitor', 'C1'],
      ],
    },
  ],
  values: ({ reOhms, leHenries }) => ({ R1: reOhms, C1: leHenries / (reOhms * reOhms) }),
});

const peakSchema = z.strictObject({
  is: z.literal('flatten-peak'),
  reOhms: between(0.5, 1000, ' Ω'),
  /** The resonance whose hump of impedance is taken away, as the driver has it in its box. */
  hz: within('hertz'),
  qms: between(0.01, 1000),
  qes: between(0.01, 1000),
});
export type FlattenPeakSlot = z.infer<typeof peakSchema>;

/**
 * Coil, capacitor and resistor in a row across a driver, the dual of its resonance: with w = 2 pi f,
 * L = Re Qes/w, C = 1/(w Re Qes), R = Re (1 + Qes/Qms), so that both together are Re about it.
 */
export const flattenPeak = defineSlot<FlattenPeakSlot>({
  is: 'flatten-peak',
  schema: peakSchema,
  title: 'Flatten the resonance',
  about: 'Three parts across the driver: the hump of its impedance goes',
  name: (slot, { hz }) => `Resonance flattened ${hz(slot.hz)}`,
  arms: () => [
    {
      at: 'across',
      join: 'row',
      parts: [
        ['coil', 'L1'],
        ['capacitor', 'C1'],
        ['resistor', 'R1'],
      ],
    },
  ],
  values: ({ reOhms, hz, qms, qes }) => {
    const w = 2 * Math.PI * hz;
    return { L1: (reOhms * qes) / w, C1: 1 / (w * reOhms * qes), R1: reOhms * (1 + qes / qms) };
  },
});
