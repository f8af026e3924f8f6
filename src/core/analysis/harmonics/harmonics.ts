import { inWords } from '@/core/quantity/format';
import { ReedError } from '@/core/errors';
import type { Circuit } from '@/core/circuit/schema';
import { netsOf } from '@/core/circuit/schema';
import { transient } from '../transient/transient';

export interface HarmonicsRequest {
  probe: string;
  frequencyHz: number;
  /** Peak volts (or amperes) of the sine; the circuit's own source waveforms are replaced. */
  amplitude: number;
  /** Source that is driven; the first one by default. */
  source?: string;
  harmonics?: number;
  signal?: AbortSignal;
}

export interface HarmonicsResult {
  fundamentalHz: number;
  /** Peak volts of each harmonic, the fundamental first, and their phases against sine. */
  volts: number[];
  degrees: number[];
  dcVolts: number;
  /** Root of the summed squares of the harmonics over the fundamental. */
  thd: number;
  /** Cycles run before the last ones looked alike. */
  settledCycles: number;
}

const POINTS = 1024;
const MOST_CYCLES = 400;

/**
 * Steady-state distortion: the circuit is run until two cycles look alike, then one whole cycle is
 * analysed on points that divide it evenly, so that nothing leaks between harmonics.
 *
 * @throws ReedError `convergence` when it does not settle (it oscillates, or settles very slowly)
 */
export function harmonics(circuit: Circuit, request: HarmonicsRequest): HarmonicsResult {
  const { probe, frequencyHz } = request;
  const run = steadyCycle(circuit, request, [probe]);
  return {
    ...seriesOfCycle(run.cycle[probe], frequencyHz, request.harmonics ?? 9),
    settledCycles: run.cycles,
  };
}

/** Fourier sums of one cycle of evenly spaced values (the last point closes it). */
export function seriesOfCycle(
  cycle: Float64Array,
  fundamentalHz: number,
  count: number,
): Omit<HarmonicsResult, 'settledCycles'> {
  const n = cycle.length - 1;
  const volts: number[] = [];
  const degrees: number[] = [];
  let dc = 0;
  for (let k = 0; k < n; k++) dc += cycle[k] / n;
  for (let h = 1; h <= count; h++) {
    let [s, c] = [0, 0];
    for (let k = 0; k < n; k++) {
      const angle = (2 * Math.PI * ((h * k) % n)) / n;
      s += ((cycle[k] - dc) * Math.sin(angle) * 2) / n;
      c += ((cycle[k] - dc) * Math.cos(angle) * 2) / n;
    }
    volts.push(Math.hypot(s, c));
    degrees.push((Math.atan2(c, s) * 180) / Math.PI);
  }
  const overtones = Math.hypot(...volts.slice(1));
  return {
    fundamentalHz,
    volts,
    degrees,
    dcVolts: dc,
    thd: volts[0] > 0 ? overtones / volts[0] : 0,
  };
}

function steadyCycle(
  circuit: Circuit,
  { frequencyHz, amplitude, source, signal }: HarmonicsRequest,
  probes: readonly string[],
): { cycle: Record<string, Float64Array>; cycles: number } {
  if (!(frequencyHz > 0)) throw new ReedError('range', 'A sine needs a frequency above 0 Hz.');
  const driven = driveWithSine(circuit, source, amplitude, frequencyHz);
  for (let cycles = 8; cycles <= MOST_CYCLES; cycles *= 2) {
    const result = transient(driven, {
      untilSeconds: cycles / frequencyHz,
      stepSeconds: 1 / (frequencyHz * POINTS),
      probes,
      signal,
    });
    const cycle: Record<string, Float64Array> = {};
    let settled = true;
    for (const net of probes) {
      const volts = result.probes[net];
      const end = volts.length - 1;
      cycle[net] = volts.slice(end - POINTS, end + 1);
      const swing = cycle[net].reduce((a, v) => Math.max(a, Math.abs(v)), 0);
      for (let k = 0; k < POINTS; k += 16) {
        if (Math.abs(volts[end - k] - volts[end - k - POINTS]) > 1e-6 * swing + 1e-9)
          settled = false;
      }
    }
    if (settled) return { cycle, cycles };
  }
  throw new ReedError(
    'convergence',
    `The circuit does not come to a steady state within ${MOST_CYCLES} cycles of ${inWords(frequencyHz, 'hertz')}: it oscillates by itself, or settles far more slowly. Look at its poles.`,
  );
}

function driveWithSine(
  circuit: Circuit,
  source: string | undefined,
  amplitude: number,
  frequencyHz: number,
): Circuit {
  const sources = circuit.parts.filter(
    (p) => p.kind === 'voltage-source' || p.kind === 'current-source',
  );
  const id =
    source ??
    sources.find((p) => ('acVolts' in p && p.acVolts) || ('acAmps' in p && p.acAmps) || p.waveform)
      ?.id ??
    sources[0]?.id;
  if (id === undefined || !sources.some((p) => p.id === id)) {
    throw new ReedError(
      'circuit',
      source
        ? `The circuit has no source “${source}” to drive.`
        : 'The circuit has no source to drive.',
      { part: source },
    );
  }
  return {
    ...circuit,
    parts: circuit.parts.map((part) => {
      if (part.kind !== 'voltage-source' && part.kind !== 'current-source') return part;
      const rest = part.kind === 'voltage-source' ? (part.dcVolts ?? 0) : (part.dcAmps ?? 0);
      if (part.id !== id) return { ...part, waveform: undefined };
      return {
        ...part,
        waveform: {
          shape: 'sine' as const,
          offsetVolts: rest,
          amplitudeVolts: amplitude,
          frequencyHz,
          delaySeconds: 0,
          degrees: 0,
        },
      };
    }),
  };
}

export interface CompressionStep {
  amplitude: number;
  /** Gain at the fundamental to the probe, dB, and its loss against the smallest level. */
  gainDb: number;
  compressionDb: number;
  thd: number;
}

export interface CompressionResult {
  steps: CompressionStep[];
  /** The net whose gain falls first by 1 dB, and the amplitude at which it does; null when none does. */
  first: { net: string; amplitude: number } | null;
}

/** Raise the level step by step, and see which net gives way first. */
export function compression(
  circuit: Circuit,
  request: Omit<HarmonicsRequest, 'amplitude'> & { amplitudes: readonly number[] },
): CompressionResult {
  const nets = netsOf(circuit);
  const steps: CompressionStep[] = [];
  const smallGain = new Map<string, number>();
  let first: CompressionResult['first'] = null;
  for (const amplitude of [...request.amplitudes].sort((a, b) => a - b)) {
    const { cycle } = steadyCycle(circuit, { ...request, amplitude }, nets);
    let worst = 1;
    for (const net of nets) {
      const gain = seriesOfCycle(cycle[net], request.frequencyHz, 1).volts[0] / amplitude;
      const small = smallGain.get(net);
      if (small === undefined) smallGain.set(net, gain);
      // Nets that hardly move (virtual grounds) say nothing about clipping.
      else if (small > 1e-3 && 20 * Math.log10(small / gain) >= worst && first === null) {
        worst = 20 * Math.log10(small / gain);
        first = { net, amplitude };
      }
    }
    const result = seriesOfCycle(cycle[request.probe], request.frequencyHz, request.harmonics ?? 9);
    const gainDb = 20 * Math.log10(result.volts[0] / amplitude);
    steps.push({
      amplitude,
      gainDb,
      compressionDb: steps.length === 0 ? 0 : steps[0].gainDb - gainDb,
      thd: result.thd,
    });
  }
  return { steps, first };
}
