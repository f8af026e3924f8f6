/** A complex number; functions on it return new ones. */
export interface Complex {
  re: number;
  im: number;
}

export const ONE: Complex = { re: 1, im: 0 };
export const plus = (a: Complex, b: Complex): Complex => ({ re: a.re + b.re, im: a.im + b.im });
export const minus = (a: Complex, b: Complex): Complex => ({ re: a.re - b.re, im: a.im - b.im });
export const scaled = (a: Complex, k: number): Complex => ({ re: a.re * k, im: a.im * k });
export const times = (a: Complex, b: Complex): Complex => ({
  re: a.re * b.re - a.im * b.im,
  im: a.re * b.im + a.im * b.re,
});
export const over = (a: Complex, b: Complex): Complex => {
  const n = b.re * b.re + b.im * b.im;
  return { re: (a.re * b.re + a.im * b.im) / n, im: (a.im * b.re - a.re * b.im) / n };
};
export const size = (a: Complex): number => Math.hypot(a.re, a.im);
/** The root in the right half plane. */
export const squareRoot = (a: Complex): Complex => {
  const re = Math.sqrt((size(a) + Math.abs(a.re)) / 2);
  if (re === 0) return { re: 0, im: 0 };
  const im = Math.abs(a.im) / (2 * re);
  const sign = a.im < 0 ? -1 : 1;
  return a.re >= 0 ? { re, im: sign * im } : { re: im, im: sign * re };
};
