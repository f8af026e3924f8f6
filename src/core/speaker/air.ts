/** Density of the air, kg/m3, and the speed of sound in it, m/s: dry air of 20 °C at sea level. */
export const AIR_DENSITY = 1.2041;
export const SPEED_OF_SOUND = 343.2;

/** The pressure that is called 0 dB, pascals. */
export const REFERENCE_PASCALS = 20e-6;

/** Stiffness of a volume of air times the volume, pascals: rho c^2. */
export const AIR_STIFFNESS = AIR_DENSITY * SPEED_OF_SOUND ** 2;
