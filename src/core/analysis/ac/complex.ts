/** A complex response: `re[k]`, `im[k]` at frequency k, volts (or amperes). */
export interface ComplexTrace {
  re: Float64Array;
  im: Float64Array;
}

export const emptyTrace = (length: number): ComplexTrace => ({
  re: new Float64Array(length),
  im: new Float64Array(length),
});

/** One in one place, and nothing elsewhere. */
export function unitTrace(length: number, place: number): ComplexTrace {
  const unit = emptyTrace(length);
  unit.re[place] = 1;
  return unit;
}
