import { npnTransistor } from '@/core/parts/kinds/transistor';
import { nearestPreferred } from '@/core/quantity/series';
import { BETA, coupling, TIMES, type BiasParts } from './stage';

const [SILICON] = npnTransistor.models!;

/** Lets the output’s capacitor find its charge where nothing is plugged in behind it, ohms. */
export const BLEEDS = 1e6;

/** A resistor that can be bought. */
export const resistor = (ohms: number) => ({
  value: nearestPreferred(Math.min(Math.max(ohms, 1), 10e6), 'E24'),
});
/** A capacitor that passes into a resistance, as it can be bought. */
export const capacitor = (ohms: number) => ({
  value: nearestPreferred(Math.min(Math.max(coupling(ohms), 1e-9), 10e-3), 'E6'),
});
export const transistor = () => ({ model: SILICON });

/** A divider that carries ten times what the base takes. */
export function dividerFor(
  volts: number,
  baseVolts: number,
  amps: number,
): Pick<BiasParts, 'R1' | 'R2'> {
  const baseAmps = amps / BETA;
  return {
    R1: resistor((volts - baseVolts) / ((TIMES + 1) * baseAmps)),
    R2: resistor(baseVolts / (TIMES * baseAmps)),
  };
}
