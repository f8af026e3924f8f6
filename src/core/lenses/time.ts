import { transient } from '@/core/analysis/transient/transient';
import type { Circuit } from '@/core/circuit/schema';
import { waveformValue, type Waveform } from '@/core/circuit/waveform';
import { bandOf, mainHz, placedBy, type Ask } from '@/core/design/ask';
import type { Sheet } from '@/core/sheet/schema';
import {
  driven,
  overLayers,
  sourceVolts,
  withoutPause,
  type OverLayers,
  type Pause,
} from './layers';

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
 * through every layer. All have the source's voltage: the pulse rises to it, squares swing to either
 * side of zero by it, the burst has it as its r.m.s. value.
 */
export async function timeLens(sheet: Sheet, pause: Pause = withoutPause): Promise<TimePicture[]> {
  const hz = mainHz(sheet.ask);
  const ring = slowness(sheet.ask);
  const pictures: TimePicture[] = [];
  for (const [id, atHz, shot] of [
    pulse(hz, ring),
    square('square-low', hz / 8, hz, ring),
    square('square-middle', hz, hz, ring),
    square('square-high', hz * 4, hz, ring),
    burst(hz, ring),
  ])
    pictures.push(await picture(sheet, id, atHz, shot, pause));
  return pictures;
}

type Named = [id: TimePicture['id'], atHz: number, shot: Shot];

const pulse = (hz: number, ring: number): Named => [
  'pulse',
  hz / (6 * ring),
  {
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
  },
];

const burst = (hz: number, ring: number): Named => [
  'burst',
  hz,
  {
    wave: {
      shape: 'burst',
      offsetVolts: 0,
      amplitudeVolts: Math.SQRT2,
      frequencyHz: hz,
      cycles: 6,
      delaySeconds: 1 / hz,
    },
    from: 0,
    until: (8 + 4 * ring) / hz,
  },
];

/** How many periods of its frequency an ask rings for: a narrow band takes longer to speak. */
function slowness(ask: Ask): number {
  if (placedBy(ask.kind) === 'edge') return 1;
  const { lowerHz, upperHz } = bandOf(ask);
  return Math.min(12, Math.max(1, Math.sqrt(lowerHz * upperHz) / (upperHz - lowerHz)));
}

/** Two periods of a square after it has settled. */
function square(id: TimePicture['id'], hz: number, edgeHz: number, ring: number): Named {
  const settle = Math.ceil(3 + (4 * ring * hz) / edgeHz);
  return [
    id,
    hz,
    {
      wave: {
        shape: 'square',
        lowVolts: -1,
        highVolts: 1,
        frequencyHz: hz,
        duty: 0.5,
        delaySeconds: 0,
        riseSeconds: 0,
      },
      from: settle / hz,
      until: (settle + 2) / hz,
    },
  ];
}

/** A wave of one volt, and the stretch of it that is shown. */
interface Shot {
  wave: Wave;
  from: number;
  until: number;
}

type Wave = Extract<Waveform, { shape: 'square' | 'burst' }>;

function scaled(wave: Wave, volts: number): Wave {
  return wave.shape === 'burst'
    ? { ...wave, amplitudeVolts: wave.amplitudeVolts * volts }
    : { ...wave, lowVolts: wave.lowVolts * volts, highVolts: wave.highVolts * volts };
}

async function picture(
  sheet: Sheet,
  id: TimePicture['id'],
  atHz: number,
  shot: Shot,
  pause: Pause,
): Promise<TimePicture> {
  const seconds = Float64Array.from(
    { length: POINTS },
    (_, k) => ((shot.until - shot.from) * k) / (POINTS - 1),
  );
  const wave = scaled(shot.wave, sheet.ways[0].source.volts);
  return {
    id,
    atHz,
    input: { seconds, volts: seconds.map((t) => waveformValue(wave, shot.from + t)) },
    layers: await overLayers(sheet, pause, (circuit, layer) =>
      run(circuit, { ...shot, wave: scaled(shot.wave, sourceVolts(layer)) }),
    ),
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
