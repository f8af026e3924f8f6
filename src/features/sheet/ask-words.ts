import type { Ask, AskKind } from '@/core/design/ask';
import type { Edge, Shape } from '@/core/response/prototypes';
import type { Choice } from './choice-word';

/** How each kind begins the sentence. */
export const KIND_WORDS: Record<AskKind, [word: string, line: string]> = {
  'low-pass': ['Pass everything below', 'Pass everything below (low-pass)'],
  'high-pass': ['Pass everything above', 'Pass everything above (high-pass)'],
  'band-pass': ['Pass only', 'Pass only a band (band-pass)'],
  'wide-band': ['Pass a wide band', 'Pass a wide band (high-pass, then low-pass)'],
  'band-stop': ['Pass all but', 'Pass all but a band (band-stop)'],
  notch: ['Take out', 'Take out one frequency (notch)'],
  peak: ['Lift or cut around', 'Lift or cut around a frequency (peak)'],
  'low-shelf': ['Lift or cut below', 'Lift or cut everything below (low shelf)'],
  'high-shelf': ['Lift or cut above', 'Lift or cut everything above (high shelf)'],
  'all-pass': ['Only turn the phase at', 'Only turn the phase (all-pass)'],
  tilt: ['Tilt about', 'Tilt everything about a frequency'],
};

export const SHAPE_WORDS: Record<Shape, [word: string, line: string]> = {
  butterworth: ['flat top', 'flat top (Butterworth)'],
  chebyshev: ['rippled', 'rippled, steeper (Chebyshev)'],
  'inverse-chebyshev': ['flat top, notched', 'flat top, notches beyond (inverse Chebyshev)'],
  elliptic: ['steepest', 'steepest, ripples on both sides (elliptic)'],
  bessel: ['even delay', 'even delay (Bessel)'],
  'linkwitz-riley': ['crossing', 'crossing at −6 dB (Linkwitz-Riley)'],
  'optimum-l': ['always falling', 'always falling, steep (optimum-L)'],
  gaussian: ['Gaussian', 'no overshoot, smooth (Gaussian)'],
  'equal-ripple-phase': ['even phase', 'even phase (equal-ripple phase)'],
  'critically-damped': ['no overshoot', 'no overshoot (critically damped)'],
};

export const EDGE_WORDS: Record<Edge, [word: string, line: string]> = {
  'half-power': ['−3 dB', '−3 dB, half the power'],
  'half-voltage': ['−6 dB', '−6 dB, half the voltage'],
  ripple: ['the ripple’s end', 'the end of the ripple'],
  asymptote: ['the asymptotes', 'where the asymptotes meet'],
  'unit-delay': ['the delay', 'one over 2π times the delay'],
};

/** The lines of a list from a table of words. */
export function choicesOf<T extends string>(
  words: Record<T, [word: string, line: string]>,
  only: readonly T[] = Object.keys(words) as T[],
): Choice<T>[] {
  return only.map((value) => ({ value, word: words[value][0], line: words[value][1] }));
}

export function orderChoices({ kind, shape }: Ask): Choice<number>[] {
  const steep = kind === 'low-pass' || kind === 'high-pass';
  return Array.from({ length: 10 }, (_, i) => i + 1)
    .filter((n) => shape !== 'linkwitz-riley' || (n % 2 === 0 && n <= 8))
    .map((n) => ({
      value: n,
      word: `order ${n}`,
      line: steep ? `order ${n}, ${6 * n} dB per octave` : `order ${n}`,
    }));
}
