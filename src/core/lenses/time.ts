import { transient } from '@/core/analysis/transient/transient';
import type { Circuit } from '@/core/circuit/schema';
import { waveformValue, type Waveform } from '@/core/circuit/waveform';
import { bandOf, mainHz, placedBy, type Ask } from '@/core/design/ask';
import type { Sheet } from '@/core/sheet/schema';
import { driven, overLayers, type OverLayers } from './layers';

/** One small picture over time: what goes in and what comes out. */
export interface TimeTrace {
  seconds: Float64Array;
  volts: Float64Array;
}

export interface TimePicture {
  id: 'pulse' | 'square-low' | 'square-middle' | 'square-high' | 'burst';
  /** Frequency of the wave; of a pulse, one over its whole length. */
  atHz: number;
  input: TimeTrace;
  layers: OverLayers<TimeTrace>;
}

const POINTS = 480;

/**
 * A pulse (charge and discharge), squares at three frequencies about the edge and a tone burst,
 * through every layer. The source swings by one volt.
 */
export function timeLens(sheet: Sheet): TimePicture[] {
  const hz = mainHz(sheet.ask);
  const ring = slowness(sheet.ask);
  return [
    picture(sheet, 'pulse', hz / (6 * ring), {
      wave: {
        shape: 'square',
        lowVolts: 0,
        highVolts: 1,
        frequencyHz: hz / (6 * ring),
        duty: 0.5,
        delaySeconds: (0.3 * ring) / hz,
        riseSeconds: 0,
      },
      from: 0,
      until: (6.3 * ring) / hz,
    }),
    square(sheet, 'square-low', hz / 8, ring),
    square(sheet, 'square-middle', hz, ring),
    square(sheet, 'square-high', hz * 4, ring),
    picture(sheet, 'burst', hz, {
      wave: {
        shape: 'burst',
        offsetVolts: 0,
        amplitudeVolts: 1,
        frequencyHz: hz,
        cycles: 6,
        delaySeconds: 1 / hz,
      },
      from: 0,
      until: (8 + 4 * ring) / hz,
    }),
  ];
}

/** How many periods of its frequency an ask rings for: a narrow band takes longer to speak. */
function slowness(ask: Ask): number {
  if (placedBy(ask.kind) === 'edge') return 1;
  const { lowerHz, upperHz } = bandOf(ask);
  return Math.min(12, Math.max(1, Math.sqrt(lowerHz * upperHz) / (upperHz - lowerHz)));
}

/** Two periods of a square after it has settled. */
function square(sheet: Sheet, id: TimePicture['id'], hz: number, ring: number): TimePicture {
  const settle = Math.ceil(3 + (4 * ring * hz) / mainHz(sheet.ask));
  return picture(sheet, id, hz, {
    wave: {
      shape: 'square',
      lowVolts: -0.5,
      highVolts: 0.5,
      frequencyHz: hz,
      duty: 0.5,
      delaySeconds: 0,
      riseSeconds: 0,
    },
    from: settle / hz,
    until: (settle + 2) / hz,
  });
}

interface Shot {
  wave: Waveform;
  from: number;
  until: number;
}

function picture(sheet: Sheet, id: TimePicture['id'], atHz: number, shot: Shot): TimePicture {
  const seconds = Float64Array.from(
    { length: POINTS },
    (_, k) => ((shot.until - shot.from) * k) / (POINTS - 1),
  );
  return {
    id,
    atHz,
    input: { seconds, volts: seconds.map((t) => waveformValue(shot.wave, shot.from + t)) },
    layers: overLayers(sheet, (circuit) => run(circuit, shot)),
  };
}

function run(circuit: Circuit, { wave, from, until }: Shot): TimeTrace {
  const stepSeconds = (until - from) / POINTS;
  const { timesSeconds, probes } = transient(driven(circuit, wave), {
    untilSeconds: until,
    stepSeconds,
    probes: ['out'],
  });
  const first = timesSeconds.findIndex((t) => t >= from - stepSeconds / 2);
  return {
    seconds: timesSeconds.slice(first).map((t) => t - timesSeconds[first]),
    volts: probes.out.slice(first),
  };
}
