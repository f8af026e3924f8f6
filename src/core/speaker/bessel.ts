/**
 * Bessel function of the first kind and first order, from its integral
 * J1(x) = (1/pi) int_0^pi cos(t - x sin t) dt (F. W. Bessel, 1824; NIST DLMF 10.9.2). The integrand
 * is periodic, so that the trapezoid rule is exact to the last digit once it has more points than x.
 */
export function besselJ1(x: number): number {
  if (Math.abs(x) > FAR) return farJ1(x);
  const count = 2 * Math.ceil(Math.abs(x) / 2) + 16;
  let sum = 0;
  for (let k = 1; k < count; k++) {
    const t = (Math.PI * k) / count;
    sum += Math.cos(t - x * Math.sin(t));
  }
  // Both ends give cos 0 and cos pi, which cancel.
  return sum / count;
}

/** From here on the expansion for large arguments gives all digits. */
const FAR = 25;

/** H. Hankel's expansion (NIST DLMF 10.17.3): sqrt(2/(pi x)) (P cos(x - 3 pi/4) - Q sin(x - 3 pi/4)). */
function farJ1(x: number): number {
  const far = Math.abs(x);
  const sums = [0, 0];
  let term = 1;
  for (let k = 0; k < 16; k++) {
    // Terms go to P and Q in turn, with signs + + - - ...
    sums[k % 2] += k % 4 < 2 ? term : -term;
    term *= (4 - (2 * k + 1) ** 2) / ((k + 1) * 8 * far);
  }
  const angle = far - 0.75 * Math.PI;
  const size = Math.sqrt(2 / (Math.PI * far));
  return Math.sign(x) * size * (sums[0] * Math.cos(angle) - sums[1] * Math.sin(angle));
}

/** 2 J1(x)/x, one at zero: how a round flat piston beams. */
export const pistonFactor = (x: number): number =>
  Math.abs(x) < 1e-4 ? 1 - (x * x) / 8 : (2 * besselJ1(x)) / x;
