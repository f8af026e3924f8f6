import { ROOM_KELVIN, THERMAL_VOLTS } from '@/core/constants';
import { findZero } from '@/core/numeric/root';
import { timesRoom } from './warmed';

/** What of an exponential converter is not ideal. */
export interface Converter {
  /** By how much the resistor to ground of its divider grows with each kelvin, millionths: 0 for an ordinary one. */
  ppmPerKelvin: number;
  /** In line with the emitter of its output transistor, its own included. */
  ohms: number;
  /** Its reference current grows as the temperature, as what it drives lets through less. */
  warmReference?: boolean;
}

/** What cancels the pair's drift about the room's temperature: VT grows by 1/T, so must the divider. */
export const CANCELS_PPM = 1e6 / ROOM_KELVIN;

/** What those resistors are sold with. */
export const USUAL_CONVERTER: Converter = { ppmPerKelvin: 3300, ohms: 0.5 };

export interface ConverterPlace {
  /** Octaves from where the pair is in balance that the control asks for. */
  octaves: number;
  /** Current of its output transistor in balance. */
  balanceAmps: number;
  kelvin?: number;
}

/**
 * Octaves from balance that an exponential converter makes of those it is asked for. Two transistors of
 * one chip, one carrying a reference current, the control voltage between their bases through a divider
 * (the difference of two base-emitter voltages is VT ln(I/Iref): P. R. Gray, R. G. Meyer, "Analysis
 * and Design of Analog Integrated Circuits", section 4.3). With the divider trimmed at room temperature,
 *
 *   ln(I/Iref) + (I - Iref) R / VT = octaves ln 2 (T0/T) (1 + alpha (T - T0))
 *
 * so warmth narrows the scale about balance, as far as the divider does not grow along with it, and the
 * resistance in line with the emitter flattens the top. Octaves are from the reference current at room
 * temperature.
 */
export function convertedOctaves(
  { ppmPerKelvin, ohms, warmReference }: Converter,
  { octaves, balanceAmps, kelvin = ROOM_KELVIN }: ConverterPlace,
): number {
  const times = timesRoom(kelvin);
  const grown = 1 + ppmPerKelvin * 1e-6 * (kelvin - ROOM_KELVIN);
  const asked = (octaves * Math.LN2 * grown) / times;
  const reference = warmReference ? times : 1;
  const lost = (balanceAmps * reference * ohms) / (THERMAL_VOLTS * times);
  // What is lost takes from what is asked, never more than all of it.
  const short = (u: number) => u + lost * Math.expm1(u) - asked;
  const made =
    lost === 0 || asked === 0
      ? asked
      : findZero(short, Math.min(asked, 0), Math.max(asked, 0), 1e-12);
  return made / Math.LN2 + Math.log2(reference);
}
