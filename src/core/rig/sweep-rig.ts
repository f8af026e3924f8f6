import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { normalDeviate, seededRandom } from '@/core/random';
import { inverseTransform } from '@/core/speaker/inverse-transform';
import { halfSpectrum } from '@/core/sweep/impulse';
import type { Recording } from '@/core/sweep/swept';

/** Converters and wires of a simulated bench. */
export interface Converters {
  rate: number;
  /** What the output gives and the input takes at full scale, volts peak. */
  outputVolts: number;
  inputVolts: number;
  bits: number;
  /** Neither passes direct current: their corners, Hz. */
  blockHz: number;
  /** From playing to coming back, samples; it need not be whole. */
  latencySamples: number;
  /** At the input: noise, volts r.m.s., and hum of the mains with its third harmonic, volts peak. */
  noiseVolts: number;
  humVolts: number;
  humHz: number;
}

/** An ordinary sound card on an ordinary bench. */
export const USUAL_CONVERTERS: Converters = {
  rate: 48_000,
  outputVolts: 1.4,
  inputVolts: 1.4,
  bits: 16,
  blockHz: 2,
  latencySamples: 731.4,
  noiseVolts: 20e-6,
  humVolts: 30e-6,
  humHz: 50,
};

/** After the sweep it is listened for so long. */
const TAIL_SECONDS = 0.6;

/**
 * Play samples through a circuit and record what comes back: exact for a linear circuit, frequency by
 * frequency, with what converters make of it.
 *
 * @param board what is between output and input, and where it is recorded; null joins them, a loop-back
 * @param played full scale is 1
 * @param seeds one for each time that it is played: noise is never twice the same
 */
export function playThrough(
  board: { analysis: AcAnalysis; probe: string } | null,
  played: Float64Array,
  converters: Converters,
  seeds: readonly number[],
): Recording[] {
  const { rate, outputVolts, inputVolts, latencySamples, blockHz, bits } = converters;
  const length = played.length + Math.round(TAIL_SECONDS * rate);
  // A circle that is as long as the recording: what still rings at its end would begin it, and is as
  // good as nothing by then.
  const size = 2 ** Math.ceil(Math.log2(length));
  const half = halfSpectrum(played, size);
  const hz = Float64Array.from(half.re, (_, k) => (k * rate) / size);
  const trace = board?.analysis.voltage(board.probe, hz.subarray(1));
  for (let k = 0; k < hz.length; k++) {
    const through = k === 0 ? [0, 0] : trace ? [trace.re[k - 1], trace.im[k - 1]] : [1, 0];
    const delay = (2 * Math.PI * k * latencySamples) / size;
    const all = times(
      times(through, blocked(hz[k], blockHz)),
      times(blocked(hz[k], blockHz), [Math.cos(delay), -Math.sin(delay)]),
    );
    [half.re[k], half.im[k]] = times([half.re[k], half.im[k]], all);
  }
  const clean = inverseTransform(half).slice(0, length);
  return seeds.map((seed) => {
    const random = seededRandom(seed);
    // Nobody begins a sweep in step with the mains.
    const from = random();
    const samples = clean.map(
      (v, n) => converted(v * outputVolts, from + n / rate, converters, random) / inputVolts,
    );
    return { samples: quantised(samples, bits), rate };
  });
}

type Complex = readonly number[];
const times = ([a, b]: Complex, [c, d]: Complex): [number, number] => [
  a * c - b * d,
  a * d + b * c,
];

/** A first-order high-pass. */
function blocked(hz: number, cornerHz: number): Complex {
  const x = hz / cornerHz;
  return [(x * x) / (1 + x * x), x / (1 + x * x)];
}

/** A voltage at the input, with what a bench adds. */
function converted(
  volts: number,
  seconds: number,
  { noiseVolts, humVolts, humHz }: Converters,
  random: () => number,
): number {
  const noise = noiseVolts * normalDeviate(random);
  const angle = 2 * Math.PI * humHz * seconds;
  return volts + noise + humVolts * (Math.sin(angle) + 0.4 * Math.sin(3 * angle));
}

/** To whole steps within full scale. */
function quantised(samples: Float64Array, bits: number): Float64Array {
  const most = 2 ** (bits - 1);
  return samples.map((v) => Math.max(-1, Math.min(1 - 1 / most, Math.round(v * most) / most)));
}
