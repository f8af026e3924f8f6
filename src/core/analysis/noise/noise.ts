import { inWords } from '@/core/quantity/format';
import { BOLTZMANN, ELEMENTARY_CHARGE, ROOM_KELVIN } from '@/core/constants';
import { ReedError, stopIfAsked } from '@/core/errors';
import type { Circuit } from '@/core/circuit/schema';
import { productOf, type NoiseTerm } from '@/core/circuit/stamper';
import { AcAnalysis } from '../ac/ac';
import type { Linearised } from '../ac/prepared';
import { integrateBand, type Band } from './band';

/** The band is that of the totals. */
export interface NoiseRequest extends Band {
  probe: string;
  /** Frequencies of the spots. */
  frequenciesHz: ArrayLike<number>;
  /** The totals' squares settle to this part of themselves. Default 1e-7. */
  settled?: number;
  signal?: AbortSignal;
}

export interface NoiseSpot {
  frequencyHz: number;
  voltsPerRootHz: number;
  /** The same, divided by the gain from the source to the probe; null without a source or gain. */
  inputVoltsPerRootHz: number | null;
}

export interface NoiseResult {
  spots: NoiseSpot[];
  /** Totals over the band, flat and A-weighted. */
  rmsVolts: number;
  rmsVoltsA: number;
  /** Parts by what they add to the flat total, largest first; their squares add up to its square. */
  contributions: { part: string; cause: string; rmsVolts: number }[];
}

/** A weighting as a power factor (IEC 61672-1, equation E.6 in amplitude), 1 at 1 kHz. */
export function aWeighting(hz: number): number {
  const f2 = hz * hz;
  const ra =
    (12194 ** 2 * f2 * f2) /
    ((f2 + 20.6 ** 2) * Math.sqrt((f2 + 107.7 ** 2) * (f2 + 737.9 ** 2)) * (f2 + 12194 ** 2));
  return (ra * 1.258925411794167) ** 2; // +2.00 dB
}

/**
 * Noise at a net: one transposed solve a frequency gives the transfer from every noise source at
 * once (L. W. Nagel, R. A. Rohrer, S. W. Director: the adjoint network; R. Rohrer et al., IEEE J.
 * Solid-State Circuits SC-6, 1971). Band totals integrate the density until they settle.
 */
export function noise(circuit: Circuit, request: NoiseRequest): NoiseResult {
  return noiseOf(new AcAnalysis(circuit, request.signal), request);
}

/** The same of a circuit that is prepared already. */
export function noiseOf(analysis: AcAnalysis, request: NoiseRequest): NoiseResult {
  const { probe, fromHz, toHz, settled = 1e-7, signal } = request;
  if (!(fromHz > 0) || !(toHz > fromHz))
    throw new ReedError(
      'range',
      `Noise over a band needs two rising frequencies above zero; ${inWords(fromHz, 'hertz')} to ${inWords(toHz, 'hertz')} was given.`,
    );
  const unknown = analysis.unknownOf(probe);
  if (unknown < 0)
    throw new ReedError('circuit', `“${probe}” is the ground net: there is no noise on it.`, {
      net: probe,
    });
  const terms = [...analysis.system.noise, ...deviceNoise(analysis.linearised)];

  const spots = densities(
    analysis,
    unknown,
    terms,
    Float64Array.from(request.frequenciesHz),
    signal,
  );
  const [flat, weighted, ...byTerm] = integrateBand({ fromHz, toHz }, settled, (hz) => {
    const found = densities(analysis, unknown, terms, hz, signal);
    return [found.total, found.total.map((x, k) => x * aWeighting(hz[k])), ...found.byTerm];
  });
  const byPart = new Map<string, { part: string; cause: string; square: number }>();
  terms.forEach((term, k) => {
    const key = `${term.part} ${term.cause}`;
    const entry = byPart.get(key) ?? { part: term.part, cause: term.cause, square: 0 };
    entry.square += byTerm[k];
    byPart.set(key, entry);
  });
  return {
    spots: Array.from(spots.frequenciesHz, (frequencyHz, k) => ({
      frequencyHz,
      voltsPerRootHz: Math.sqrt(spots.total[k]),
      inputVoltsPerRootHz: spots.gain[k] > 0 ? Math.sqrt(spots.total[k]) / spots.gain[k] : null,
    })),
    rmsVolts: Math.sqrt(flat),
    rmsVoltsA: Math.sqrt(weighted),
    contributions: [...byPart.values()]
      .map(({ part, cause, square }) => ({ part, cause, rmsVolts: Math.sqrt(square) }))
      .sort((a, b) => b.rmsVolts - a.rmsVolts),
  };
}

/**
 * The density alone, at the values that an analysis has.
 *
 * @returns volts a root hertz, at the probe and divided by the gain from the source
 */
export function noiseDensity(
  analysis: AcAnalysis,
  probe: string,
  frequenciesHz: Float64Array,
): { output: Float64Array; input: Float64Array } {
  const terms = [...analysis.system.noise, ...deviceNoise(analysis.linearised)];
  const { total, gain } = densities(analysis, analysis.unknownOf(probe), terms, frequenciesHz);
  const output = total.map(Math.sqrt);
  return { output, input: output.map((volts, k) => (gain[k] > 0 ? volts / gain[k] : NaN)) };
}

/** Shot and channel noise of the devices at their operating point. */
function deviceNoise(linearised: Linearised | undefined): NoiseTerm[] {
  if (!linearised) return [];
  return linearised.elements.flatMap(({ element, values }) =>
    element.noise.map(({ from, to, shotOf, shotOfBias, thermalOfSlope }): NoiseTerm => {
      const n = element.inputs.length;
      const density = shotOfBias
        ? 2 * ELEMENTARY_CHARGE * values.bias
        : shotOf !== undefined
          ? 2 * ELEMENTARY_CHARGE * Math.abs(values.current[shotOf])
          : 4 *
            BOLTZMANN *
            ROOM_KELVIN *
            (2 / 3) *
            Math.abs(values.conductance[from * n + thermalOfSlope!]);
      return {
        part: element.part,
        cause: thermalOfSlope === undefined ? 'shot' : 'channel',
        plus: element.rows[from],
        minus: to < 0 ? -1 : element.rows[to],
        density: { scale: density, factors: [] },
      };
    }),
  );
}

interface Densities {
  frequenciesHz: Float64Array;
  /** V^2/Hz at the probe. */
  total: Float64Array;
  /** By term, then frequency. */
  byTerm: Float64Array[];
  /** |transfer| from the sources together, V/V. */
  gain: Float64Array;
}

function densities(
  analysis: AcAnalysis,
  unknown: number,
  terms: readonly NoiseTerm[],
  frequenciesHz: Float64Array,
  signal?: AbortSignal,
): Densities {
  const count = frequenciesHz.length;
  const result: Densities = {
    frequenciesHz,
    total: new Float64Array(count),
    byTerm: terms.map(() => new Float64Array(count)),
    gain: new Float64Array(count),
  };
  const { rhs } = analysis;
  analysis.eachTransfer(unknown, frequenciesHz, ({ from, count, width, yRe, yIm }) => {
    stopIfAsked(signal);
    terms.forEach(({ plus, minus, density, corner }, t) => {
      const cornerHz = corner === undefined ? 0 : analysis.values[corner];
      const white = productOf(density, analysis.values);
      const own = result.byTerm[t];
      for (let k = 0; k < count; k++) {
        const re =
          (plus < 0 ? 0 : yRe[plus * width + k]) - (minus < 0 ? 0 : yRe[minus * width + k]);
        const im =
          (plus < 0 ? 0 : yIm[plus * width + k]) - (minus < 0 ? 0 : yIm[minus * width + k]);
        const flicker = 1 + cornerHz / frequenciesHz[from + k];
        own[from + k] = (re * re + im * im) * white * flicker;
        result.total[from + k] += own[from + k];
      }
    });
    for (let k = 0; k < count; k++) {
      let [gr, gi] = [0, 0];
      for (let row = 0; row < rhs.re.length; row++) {
        if (rhs.re[row] === 0 && rhs.im[row] === 0) continue;
        const at = row * width + k;
        gr += yRe[at] * rhs.re[row] - yIm[at] * rhs.im[row];
        gi += yRe[at] * rhs.im[row] + yIm[at] * rhs.re[row];
      }
      result.gain[from + k] = Math.hypot(gr, gi);
    }
  });
  return result;
}
