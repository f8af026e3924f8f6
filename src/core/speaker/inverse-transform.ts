import FFT from 'fft.js';
import type { ComplexTrace } from '@/core/analysis/ac/complex';

/**
 * What an impulse makes of a response that is known at all multiples of a step up to half the rate,
 * begun some time after the impulse: where sound first arrives.
 *
 * @param hz the frequencies, half a power of two of them; at zero there is nothing
 * @param keep what part of each frequency is kept
 */
export function impulseOfResponse(
  { re, im }: ComplexTrace,
  hz: Float64Array,
  { afterSeconds, keep }: { afterSeconds: number; keep: (hz: number) => number },
): Float64Array {
  const half = { re: new Float64Array(hz.length + 1), im: new Float64Array(hz.length + 1) };
  hz.forEach((f, k) => {
    const angle = 2 * Math.PI * f * afterSeconds;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const kept = keep(f);
    half.re[k + 1] = kept * (re[k] * cos - im[k] * sin);
    half.im[k + 1] = kept * (re[k] * sin + im[k] * cos);
  });
  return inverseTransform(half);
}

/**
 * A real signal from half its spectrum, from zero to half the sample rate, both ends included.
 *
 * @param half one entry more than half a power of two
 * @returns as many samples as that power of two; the inverse of a sum over exp(-j 2 pi n k/N)
 */
export function inverseTransform(half: ComplexTrace): Float64Array {
  const size = 2 * (half.re.length - 1);
  const fft = new FFT(size);
  const spectrum = fft.createComplexArray() as number[];
  for (let k = 0; k < half.re.length; k++) {
    spectrum[2 * k] = half.re[k];
    spectrum[2 * k + 1] = half.im[k];
    if (k === 0 || k === size / 2) continue;
    // The other half of a real signal's spectrum is the same, turned over.
    spectrum[2 * (size - k)] = half.re[k];
    spectrum[2 * (size - k) + 1] = -half.im[k];
  }
  const out = fft.createComplexArray() as number[];
  fft.inverseTransform(out, spectrum);
  return Float64Array.from({ length: size }, (_, n) => out[2 * n]);
}
