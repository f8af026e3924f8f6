import { LinearTime } from '@/core/analysis/linear-time/linear-time';
import { polesAndZeros, type RootFigures } from '@/core/analysis/poles/poles';
import { mainHz } from '@/core/design/ask';
import type { Circuit } from '@/core/circuit/schema';
import { messageOf, ReedError } from '@/core/errors';
import { layersOf } from '@/core/sheet/layers';
import { layerName } from '@/core/sheet/layer-name';
import { SOURCE } from '@/core/circuit/unit-source';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import type { CurvesOfBoards } from './boards';
import { sourceVolts, withoutPause, type OverLayers, type Pause } from './layers';
import {
  aboutRest,
  inputTrace,
  outputTrace,
  runOf,
  type Run,
  type Piece,
  type Shot,
  type TimeTrace,
} from './time-run';

export type { TimeTrace } from './time-run';

/** One small picture over time: what goes in and what comes out. */
export interface TimePicture {
  id: 'pulse' | 'square-low' | 'square-middle' | 'square-high' | 'burst';
  /** Frequency of the wave; of a pulse, one over its whole length. */
  atHz: number;
  input: TimeTrace;
  layers: OverLayers<TimeTrace>;
}

interface Plan extends Pick<TimePicture, 'id' | 'atHz'> {
  /** For a source of so many volts. */
  shot: (volts: number) => Shot;
}

/** One over the frequency the ask is about is so many smallest steps, as a power of two. */
const FINENESS = 24;
const ONE = 2 ** FINENESS;

/**
 * A pulse (charge and discharge), squares at three frequencies about the edge as they are when they
 * have gone on for ever, and a tone burst, through every layer. All have the source's voltage: the
 * pulse rises to it, squares swing to either side of zero by it, the burst has it as its r.m.s. value.
 */
export async function timeLens(sheet: Sheet, pause: Pause = withoutPause): Promise<TimePicture[]> {
  const hz = mainHz(sheet.ask);
  const smallest = 1 / hz / ONE;
  const plans = plansFor(hz, ringingOf(sheet, hz));
  const pictures = plans.map(({ id, atHz, shot }): TimePicture => ({
    id,
    atHz,
    input: inputTrace(shot(sheet.source.volts), smallest),
    layers: { layers: [], problems: [] },
  }));
  for (const layer of layersOf(sheet)) {
    try {
      await pause();
      const { design, version } = layer;
      const circuit = pathCircuit(design, 0, version);
      const time = new LinearTime(circuit, SOURCE, 'out', smallest, hz);
      for (const [i, { shot }] of plans.entries()) {
        await pause();
        const value = outputTrace(time, shot(sourceVolts(layer)));
        pictures[i].layers.layers.push({ id: layer.id, value });
      }
    } catch (error) {
      if (!(error instanceof ReedError) || error.code === 'stopped') throw error;
      for (const { layers } of pictures)
        if (!layers.layers.some((l) => l.id === layer.id))
          layers.problems.push(`${layerName(layer.id, sheet)}: ${messageOf(error)}`);
    }
  }
  return pictures;
}

/** So many powers of two fewer points than in the picture are enough for a band. */
const COARSER = 2;
/** Within this part of its crest what a circuit does about its rest is all that it does. */
const STRAIGHT = 0.01;

/**
 * The same waves through boards: about their rest, which takes a hundredth of the time, unless the
 * design itself is driven so far that it does otherwise.
 */
export const timesOfBoards: CurvesOfBoards = (sheet) => {
  const hz = mainHz(sheet.ask);
  const smallest = 1 / hz / ONE;
  const timeOf = (circuit: Circuit) => new LinearTime(circuit, SOURCE, 'out', smallest, hz);
  const nominal = timeOf(pathCircuit(sheet, 0, 'built'));
  const waves = plansFor(hz, ringingOf(sheet, hz)).map(({ id, shot }) => {
    const fine = shot(sheet.source.volts);
    const coarse = { ...fine, level: fine.level + COARSER };
    const straight = aboutRest(nominal, fine);
    const crest = straight.volts.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    const bent = runOf(nominal, fine);
    const isStraight = crestsApart(straight, bent) < STRAIGHT * crest;
    return isStraight ? { id, shot: coarse, run: aboutRest } : { id, shot: fine, run: runOf };
  });
  return {
    places: Object.fromEntries(
      waves.map(({ id, shot, run }) => [id, Float64Array.from(run(nominal, shot).seconds)]),
    ),
    read({ circuit }) {
      const time = timeOf(circuit());
      return Object.fromEntries(
        waves.map(({ id, shot, run }) => [id, Float64Array.from(run(time, shot).volts)]),
      );
    },
  };
};

/** How far two runs are apart at the most where they have a moment in common. */
function crestsApart(a: Run, b: Run): number {
  const [volts, seconds] = [new Map<number, number>(), (t: number) => Number(t.toPrecision(9))];
  a.seconds.forEach((t, k) => volts.set(seconds(t), a.volts[k]));
  return b.seconds.reduce(
    (most, t, k) => Math.max(most, Math.abs((volts.get(seconds(t)) ?? b.volts[k]) - b.volts[k])),
    0,
  );
}

/** How a filter rings: for how many periods of its frequency, and how fast. */
interface Ringing {
  periods: number;
  hz: number;
}

const LONGEST_RING = 16;
/** Poles within this factor of the ask's frequency set the length of the pictures. */
const NEAR = 10;
/** Poles within this factor are drawn ring by ring; the steps after an edge show what is faster. */
const DRAWN = 30;

/** From the poles of the exact circuit: a pair's ringing falls to 4 % in Q periods. */
function ringingOf(sheet: Sheet, hz: number): Ringing {
  let figures: RootFigures[] = [];
  try {
    figures = polesAndZeros(pathCircuit(sheet, 0, 'ideal'), 'out').poleFigures;
  } catch (error) {
    // Each layer says for itself what is wrong with its circuit.
    if (!(error instanceof ReedError)) throw error;
  }
  const within = (factor: number) =>
    figures.filter(({ f0Hz, q }) => q !== null && f0Hz < hz * factor && f0Hz > hz / factor);
  const longest = Math.max(0.5, ...within(NEAR).map((p) => (Math.abs(p.q!) * hz) / p.f0Hz));
  return {
    periods: Math.min(LONGEST_RING, Math.max(1, Math.ceil(longest / 2))),
    hz: Math.max(hz, ...within(DRAWN).map((p) => p.f0Hz)),
  };
}

const POINTS_A_RING = 24;
const LEAST_POINTS = 900;
const MOST_POINTS = 4000;

/** Power of two of smallest steps between points, for a picture that is `length` times 1/hz long. */
function levelFor(length: number, { hz: ringHz }: Ringing, hz: number): number {
  const wanted = Math.max(LEAST_POINTS, length * (ringHz / hz) * POINTS_A_RING);
  return Math.floor(Math.log2((length * ONE) / Math.min(MOST_POINTS, wanted)));
}

function plansFor(hz: number, ringing: Ringing): Plan[] {
  const { periods } = ringing;
  const held = (length: number, volts: number): Piece => ({
    units: length * ONE,
    held: volts,
    sinePeak: 0,
  });
  const level = (pieces: readonly Piece[]) =>
    levelFor(pieces.reduce((sum, p) => sum + p.units, 0) / ONE, ringing, hz);
  const shotOf = (pieces: readonly Piece[], more: Partial<Shot> = {}): Shot => ({
    pieces,
    level: level(pieces),
    sineHz: hz,
    ...more,
  });
  /** @param octaves of the square over the ask's frequency */
  const square = (id: TimePicture['id'], octaves: number): Plan => ({
    id,
    atHz: hz * 2 ** octaves,
    shot: (volts) => {
      const half = 2 ** (-octaves - 1);
      return shotOf(
        [held(half, volts), held(half, -volts), held(half, volts), held(half, -volts)],
        {
          steady: { volts, half: FINENESS - octaves - 1 },
        },
      );
    },
  });
  return [
    {
      id: 'pulse',
      atHz: hz / (6 * periods),
      shot: (volts) =>
        shotOf([held(periods / 4, 0), held(3 * periods, volts), held(3 * periods, 0)]),
    },
    square('square-low', -3),
    square('square-middle', 0),
    square('square-high', 2),
    {
      id: 'burst',
      atHz: hz,
      shot: (volts) =>
        shotOf([
          held(1, 0),
          { units: 6 * ONE, held: 0, sinePeak: volts * Math.SQRT2 },
          held(1 + 4 * periods, 0),
        ]),
    },
  ];
}
