import { transient } from '@/core/analysis/transient/transient';
import type { Circuit, Part } from '@/core/circuit/schema';
import type { Waveform } from '@/core/circuit/waveform';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';

/** What can be played into a circuit besides a recording. */
export const WAVES = ['sine', 'saw', 'square', 'triangle', 'noise'] as const;
export type Wave = (typeof WAVES)[number];

/** A recording, full scale at 1. */
export interface Recording {
  rate: number;
  samples: Float64Array;
}

export interface RenderRequest {
  probe: string;
  /** The source that plays. */
  source: string;
  wave: Wave | Recording;
  hz: number;
  /** Amplitude; of noise its rms, of a recording what its full scale is. */
  volts: number;
  seconds: number;
  /** Samples a second. */
  rate: number;
  /** Steps of the engine to a sample. */
  oversample: number;
}

/**
 * Volts of a net, sample by sample, while a source plays: the nonlinear circuit over time from its
 * operating point (`transient`), of whose steps each sample is one. Nothing is scaled and nothing
 * smoothed: what lies above half the rate folds down, as wherever volts are sampled.
 *
 * @throws ReedError `circuit` for a source that is not there, `range` for what cannot be played
 */
export function render(circuit: Circuit, request: RenderRequest): Float64Array {
  const { probe, seconds, rate, oversample } = request;
  const count = Math.round(seconds * rate);
  if (!(count >= 1))
    throw new ReedError('range', `${seconds} s at ${rate} samples a second is not one sample.`);
  const step = 1 / (rate * oversample);
  const { probes } = transient(withWave(circuit, request), {
    untilSeconds: count * oversample * step,
    stepSeconds: step,
    probes: [probe],
  });
  const volts = probes[probe];
  return Float64Array.from({ length: count }, (_, k) => volts[k * oversample]);
}

/** The circuit with something playing; a source keeps its rest, which bias may hang on. */
export function withWave(
  circuit: Circuit,
  request: Pick<RenderRequest, 'source' | 'wave' | 'hz' | 'volts' | 'rate'>,
): Circuit {
  const isSource = (part: Part) =>
    part.kind === 'voltage-source' || part.kind === 'current-source' ? part : undefined;
  const sources = circuit.parts.flatMap((p) => isSource(p)?.id ?? []);
  if (!sources.includes(request.source))
    throw new ReedError(
      'circuit',
      `The circuit has no source ${quoted(request.source)}; there are ${sources.join(', ') || 'none'}.`,
      { part: request.source },
    );
  return {
    ...circuit,
    parts: circuit.parts.map((part): Part => {
      const source = part.id === request.source ? isSource(part) : undefined;
      return source ? { ...source, waveform: waveformOf(request, restOf(source)) } : part;
    }),
  };
}

type Source = Extract<Part, { kind: 'voltage-source' | 'current-source' }>;

const restOf = (source: Source): number =>
  (source.kind === 'voltage-source' ? source.dcVolts : source.dcAmps) ?? 0;

function waveformOf(
  { wave, hz, volts, rate }: Pick<RenderRequest, 'wave' | 'hz' | 'volts' | 'rate'>,
  rest: number,
): Waveform {
  if (typeof wave === 'object')
    return {
      shape: 'samples',
      offsetVolts: rest,
      sampleSeconds: 1 / wave.rate,
      volts: Array.from(wave.samples, (x) => x * volts),
      repeat: false,
    };
  switch (wave) {
    case 'noise':
      return {
        shape: 'noise',
        offsetVolts: rest,
        rmsVolts: volts,
        sampleSeconds: 1 / rate,
        seed: 1,
      };
    case 'square':
      return {
        shape: 'square',
        lowVolts: rest - volts,
        highVolts: rest + volts,
        frequencyHz: hz,
        duty: 0.5,
        delaySeconds: 0,
        riseSeconds: 0,
      };
    default: {
      const swing = { offsetVolts: rest, amplitudeVolts: volts, frequencyHz: hz, delaySeconds: 0 };
      return wave === 'sine' ? { shape: 'sine', ...swing, degrees: 0 } : { shape: wave, ...swing };
    }
  }
}
