import type { Take } from '@/core/library/take';
import { outNet } from '@/core/sheet/nets';
import type { Sheet } from '@/core/sheet/schema';
import { boardCircuit, otherWayOf } from './board-circuit';
import { meetingIn } from './compare';

/** What of a board a take can be of; nothing said is the level at its output. */
export type Point = Take['of'];

/** Nets that can be measured beside the output, each with the parts that meet there. */
export function innerNets(sheet: Sheet): { net: string; parts: string[] }[] {
  const { circuit, fixed } = boardCircuit(sheet, undefined);
  const known = [circuit.ground, 'in', 'source', outNet(sheet)];
  return Object.entries(meetingIn(circuit, fixed)).flatMap(([net, parts]) =>
    known.includes(net) || otherWayOf(sheet, net) ? [] : [{ net, parts }],
  );
}

/** Whether two takes are of the same. */
export const isSamePoint = (a: Point, b: Point): boolean => pointKey(a) === pointKey(b);

/** A point by one word; the path that it is of does not count. */
export const pointKey = (of: Point): string =>
  of?.is === 'impedance' ? 'impedance' : of?.net === undefined ? 'output' : `net ${of.net}`;

/**
 * Whether a take is of a path: one that says of none is of the first, and what the source sees of all of
 * them.
 *
 * @param first id of the first path of the sheet
 */
export const isOfWay = (of: Point, way: string, first: string): boolean =>
  of?.way === undefined ? of?.is === 'impedance' || way === first : of.way === way;

/** What is measured of a path, saying so where that is needed. */
export function pointOfWay({ bank }: Sheet, of: Point, way: string, first: string): Point {
  // The channels of a bank are measured one by one; an amplifier sees all ways of a crossover at once.
  if (of?.is === 'impedance') return bank ? { ...of, way } : of;
  return way === first ? of : { is: 'level', ...of, way };
}
