/** A complex response: `re[k]`, `im[k]` at frequency k, volts (or amperes). */
export interface ComplexTrace {
  re: Float64Array;
  im: Float64Array;
}
