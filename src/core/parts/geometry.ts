/** A point on the drawing grid, in whole grid units; y grows downwards. */
export type Point = readonly [x: number, y: number];

/** Which way a symbol points, or a line leaves a pin. */
export const FACINGS = ['right', 'down', 'left', 'up'] as const;
export type Facing = (typeof FACINGS)[number];

/** Quarter turns to the right that a facing is from “right”. */
export const quarterTurns = (facing: Facing): number => FACINGS.indexOf(facing);

/** A facing turned on by another: “down” of something that itself faces “left”. */
export const turnedOn = (facing: Facing, by: Facing): Facing =>
  FACINGS[(quarterTurns(facing) + quarterTurns(by)) % 4];

/** One grid step in a direction. */
export function stepOf(facing: Facing): Point {
  switch (facing) {
    case 'right':
      return [1, 0];
    case 'down':
      return [0, 1];
    case 'left':
      return [-1, 0];
    case 'up':
      return [0, -1];
  }
}

/** How a symbol lies: where it points, and whether it is flipped about its own axis first. */
export interface Lie {
  toward?: Facing;
  mirrored?: boolean;
}

/** A point of a symbol’s own plane, turned as the symbol lies; about its first pin. */
export function turned([x, y]: Point, { toward = 'right', mirrored }: Lie, axis: number): Point {
  const v = mirrored ? 2 * axis - y : y;
  switch (toward) {
    case 'right':
      return [x, v];
    case 'down':
      return [-v, x];
    case 'left':
      return [-x, -v];
    case 'up':
      return [v, -x];
  }
}

/** A direction of a symbol’s own plane, turned as the symbol lies. */
export function turnedFacing(facing: Facing, { toward = 'right', mirrored }: Lie): Facing {
  const flipped =
    mirrored && facing === 'down' ? 'up' : mirrored && facing === 'up' ? 'down' : facing;
  return turnedOn(flipped, toward);
}
