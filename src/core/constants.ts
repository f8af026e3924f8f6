/** CODATA 2018 (exact since the SI of 2019). */
export const BOLTZMANN = 1.380649e-23; // J/K
export const ELEMENTARY_CHARGE = 1.602176634e-19; // C

/** Room temperature of every analysis, kelvin. */
export const ROOM_KELVIN = 300.15;

/** Thermal voltage kT/q at room temperature, volts. */
export const THERMAL_VOLTS = (BOLTZMANN * ROOM_KELVIN) / ELEMENTARY_CHARGE;
