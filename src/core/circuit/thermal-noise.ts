import { BOLTZMANN, ROOM_KELVIN } from '@/core/constants';
import type { Stamper } from './stamper';

/** 4 k T, joules. */
const HEAT = 4 * BOLTZMANN * ROOM_KELVIN;

/** Thermal noise of a resistance (given by its parameter), as the current 4 k T / R beside it (H. Nyquist, Phys. Rev. 32, 1928). */
export function thermalNoise(s: Stamper, a: number, b: number, ohms: number): void {
  s.noise({ cause: 'thermal', plus: a, minus: b, density: { scale: HEAT, factors: [[ohms, -1]] } });
}

/** The same as a voltage in series, on the branch equation `row` of a part that carries its own current. */
export function seriesThermalNoise(s: Stamper, row: number, ohms: number): void {
  s.noise({
    cause: 'thermal',
    plus: row,
    minus: -1,
    density: { scale: HEAT, factors: [[ohms, 1]] },
  });
}
