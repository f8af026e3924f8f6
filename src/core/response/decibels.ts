/** Half of the power, in dB: what an edge of “-3 dB” means unless somebody says three exactly. */
export const HALF_POWER_DB = 10 * Math.log10(2);
export const HALF_VOLTAGE_DB = 20 * Math.log10(2);
/** So many degrees belong to a decibel, where what disturbs a signal comes from every side. */
export const DEGREES_PER_DB = ((Math.LN10 / 20) * 180) / Math.PI;

/** Decibels of a factor e of a voltage. */
export const DB_PER_NEPER = 20 / Math.LN10;
