import * as z from 'zod';
import { between } from '@/core/quantity/bounds';

const metres = between(-1000, 1000, ' m');

/** A point in front of the loudspeaker: x to its right, y up, z towards the listener. */
export const placeSchema = z.strictObject({ xMetres: metres, yMetres: metres, zMetres: metres });
export type Place = z.infer<typeof placeSchema>;

/** Where a driver is of which nothing is said. */
export const MIDDLE: Place = { xMetres: 0, yMetres: 0, zMetres: 0 };

/** A turn away from a direction, degrees: up, and to the side (towards x). */
export interface Turn {
  up: number;
  side: number;
}

export const AHEAD: Turn = { up: 0, side: 0 };

const RADIANS = Math.PI / 180;

/** A listening place turned about the origin: as far away, so much higher and so much to the side. */
export function turned({ xMetres, yMetres, zMetres }: Place, { up, side }: Turn): Place {
  if (up === 0 && side === 0) return { xMetres, yMetres, zMetres };
  const far = Math.hypot(xMetres, yMetres, zMetres);
  const height = Math.atan2(yMetres, Math.hypot(xMetres, zMetres)) + up * RADIANS;
  const aside = Math.atan2(xMetres, zMetres) + side * RADIANS;
  return {
    xMetres: far * Math.cos(height) * Math.sin(aside),
    yMetres: far * Math.sin(height),
    zMetres: far * Math.cos(height) * Math.cos(aside),
  };
}

/** How a listener lies to a unit: metres away, and the sine of the angle from the z axis. */
export interface Sight {
  metres: number;
  sine: number;
}

export function sightOf(unit: Place, listener: Place): Sight {
  const [dx, dy, dz] = [
    listener.xMetres - unit.xMetres,
    listener.yMetres - unit.yMetres,
    listener.zMetres - unit.zMetres,
  ];
  const metres = Math.hypot(dx, dy, dz);
  return { metres, sine: metres === 0 ? 0 : Math.hypot(dx, dy) / metres };
}
