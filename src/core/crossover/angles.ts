import { soundLevels } from '@/core/speaker/sound-levels';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { evenly } from '@/core/speaker/tune/measure';
import { solveCrossover } from './solve';
import { isCrossover } from './crossover-design';

/** A curve of the sum in one direction. */
export interface AngleCurve {
  degrees: number;
  levelDb: Float64Array;
}

/** What a crossover sounds like beside its axis. */
export interface AnglesPicture {
  frequenciesHz: Float64Array;
  up: AngleCurve[];
  side: AngleCurve[];
  /** Levels over angle, by angle, then by frequency: up and down, and to one side and the other. */
  field: { degrees: Float64Array; up: Float64Array[]; side: Float64Array[] };
  /** Mean power over directions about the axis, as several listeners have it. */
  windowDb: Float64Array;
  /** Mean power over the half space in front: what the room is filled with. */
  powerDb: Float64Array;
  problem: string | null;
}

const POINTS = 181;
const UP = [-30, -15, 0, 15, 30];
const SIDE = [0, 15, 30, 45, 60];
/** Angles of the picture over angle. */
const FIELD = Float64Array.from({ length: 49 }, (_, k) => (k - 24) * 2.5);
/** Directions of the listening window, degrees up and to the side. */
const WINDOW = [
  [0, 0],
  [10, 0],
  [-10, 0],
  [0, 10],
  [0, 20],
  [0, 30],
  [0, -10],
  [0, -20],
  [0, -30],
] as const;
/** Steps of the half space: from the axis outwards, and around it. */
const OUTWARDS = 10;
const AROUND = 8;

/** The sum in all directions; each driver beams as it is said to, and into half space. */
export function anglesPicture(sheet: Sheet): AnglesPicture {
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = evenly(fromHz, toHz, POINTS);
  const nothing = new Float64Array(0);
  const none = {
    frequenciesHz,
    up: [],
    side: [],
    field: { degrees: nothing, up: [], side: [] },
    windowDb: nothing,
    powerDb: nothing,
  };
  if (!isCrossover(sheet)) return { ...none, problem: null };
  try {
    const speaker = solveCrossover(sheet, 'true', `${sheet.id} angles`);
    const electrical = speaker.electrical(frequenciesHz);
    const levels = (up: number, side: number) =>
      soundLevels(speaker.sound(electrical, { up, side }).sum);
    const mean = (directions: readonly (readonly [up: number, side: number, weight: number])[]) => {
      const power = new Float64Array(POINTS);
      let whole = 0;
      for (const [up, side, weight] of directions) {
        const { re, im } = speaker.sound(electrical, { up, side }).sum;
        for (let k = 0; k < POINTS; k++) power[k] += weight * (re[k] ** 2 + im[k] ** 2);
        whole += weight;
      }
      return soundLevels({
        re: power.map((p) => Math.sqrt(p / whole)),
        im: new Float64Array(POINTS),
      });
    };
    return {
      frequenciesHz,
      up: UP.map((degrees) => ({ degrees, levelDb: levels(degrees, 0) })),
      side: SIDE.map((degrees) => ({ degrees, levelDb: levels(0, degrees) })),
      field: {
        degrees: FIELD,
        up: Array.from(FIELD, (degrees) => levels(degrees, 0)),
        side: Array.from(FIELD, (degrees) => levels(0, degrees)),
      },
      windowDb: mean(WINDOW.map(([up, side]) => [up, side, 1])),
      powerDb: mean(halfSpace()),
      problem: null,
    };
  } catch (error) {
    return { ...none, problem: messageOf(error) };
  }
}

/** Directions over the half space in front, each with its share of it. */
function halfSpace(): [up: number, side: number, weight: number][] {
  const degrees = 180 / Math.PI;
  return Array.from({ length: OUTWARDS }, (_, i) => {
    const off = ((i + 0.5) / OUTWARDS) * (Math.PI / 2);
    return Array.from({ length: AROUND }, (_, j): [number, number, number] => {
      const round = (2 * Math.PI * (j + 0.5)) / AROUND;
      const [x, y, z] = [
        Math.sin(off) * Math.cos(round),
        Math.sin(off) * Math.sin(round),
        Math.cos(off),
      ];
      return [Math.asin(y) * degrees, Math.atan2(x, z) * degrees, Math.sin(off)];
    });
  }).flat();
}
