import { emptyTrace } from '@/core/analysis/ac/complex';
import type { Part } from '@/core/circuit/schema';
import { evenly } from '@/core/speaker/tune/measure';
import { GROUND_NET } from '@/core/speaker/document';
import type { SolvedSpeaker } from '@/core/speaker/solved-speaker';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { CrossoverFigure } from './readings';

/** What a part of the network takes at the stated drive. */
export interface PartLoad {
  id: string;
  kind: Part['kind'];
  /** Highest voltage across it, rms, of a sine anywhere in the band. */
  volts: number;
  voltsAtHz: number;
  /** Most that it turns into heat: of a sine, and of music-like noise of the same rms. */
  sineWatts: number;
  sineAtHz: number;
  musicWatts: number;
}

/** Where sines are tried, and points. */
const BAND = { fromHz: 20, toHz: 20_000, points: 61 };

/**
 * How much of the power of music lies at a frequency, per unit of its logarithm: noise of equal power
 * an octave, falling off by 12 dB an octave below 40 Hz and by 6 dB above 4 kHz, which is near what
 * IEC 60268-1 shapes noise to for testing loudspeakers.
 */
export function musicWeight(hz: number): number {
  const low = (hz / 40) ** 4;
  return low / (1 + low) / (1 + (hz / 4000) ** 2);
}

/** What part of the power of music lies at each of frequencies that are spread evenly by ratio. */
export function musicShare(hz: Float64Array): Float64Array {
  const weights = hz.map(musicWeight);
  const whole = weights.reduce((a, b) => a + b, 0);
  return weights.map((w) => w / whole);
}

/** What every part of the network bears at a drive, volts rms. */
export function partLoads(speaker: SolvedSpeaker, driveVolts: number): PartLoad[] {
  const hz = evenly(BAND.fromHz, BAND.toHz, BAND.points);
  const share = musicShare(hz);
  const parts = speaker.document.network.flatMap((part) =>
    part.kind === 'resistor' || part.kind === 'capacitor' || part.kind === 'inductor' ? [part] : [],
  );
  const nets = [...new Set(parts.flatMap(({ a, b }) => [a, b]))].filter((n) => n !== GROUND_NET);
  const volts = speaker.analysis.voltages(nets, hz);
  const silent = emptyTrace(hz.length);
  const traceOf = (net: string) => (net === GROUND_NET ? silent : volts[nets.indexOf(net)]);
  return parts.map((part) => {
    const [a, b] = [traceOf(part.a), traceOf(part.b)];
    const load: PartLoad = {
      id: part.id,
      kind: part.kind,
      volts: 0,
      voltsAtHz: hz[0],
      sineWatts: 0,
      sineAtHz: hz[0],
      musicWatts: 0,
    };
    hz.forEach((f, k) => {
      const across = driveVolts * Math.hypot(a.re[k] - b.re[k], a.im[k] - b.im[k]);
      const watts = heatAt(part, across, 2 * Math.PI * f);
      if (across > load.volts) [load.volts, load.voltsAtHz] = [across, f];
      if (watts > load.sineWatts) [load.sineWatts, load.sineAtHz] = [watts, f];
      load.musicWatts += watts * share[k];
    });
    return load;
  });
}

/** Heat of a part with a voltage across it: of a resistor, or of the loss in a coil or capacitor. */
function heatAt(
  part: Extract<Part, { kind: 'resistor' | 'capacitor' | 'inductor' }>,
  volts: number,
  w: number,
): number {
  if (part.kind === 'resistor') return volts ** 2 / part.ohms;
  const loss = (part.kind === 'inductor' ? part.dcrOhms : part.esrOhms) ?? 0;
  const reactance = part.kind === 'inductor' ? w * part.henries : 1 / (w * part.farads);
  return (volts ** 2 * loss) / (loss ** 2 + reactance ** 2);
}

/** The resistor that gets hottest by music at the stated drive. */
export function heatOf(speaker: SolvedSpeaker, crossover: Crossover): CrossoverFigure | null {
  const resistors = partLoads(speaker, crossover.loudVolts).filter((l) => l.kind === 'resistor');
  if (resistors.length === 0) return null;
  const hottest = resistors.reduce((a, b) => (b.musicWatts > a.musicWatts ? b : a));
  return {
    value: hottest.musicWatts,
    atHz: hottest.sineAtHz,
    part: hottest.id,
    sineWatts: hottest.sineWatts,
  };
}
