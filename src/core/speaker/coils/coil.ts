import * as z from 'zod';
import { between } from '@/core/quantity/bounds';

const metres = between(1e-5, 100, ' m');
const vector = z.tuple([between(-1000, 1000), between(-1000, 1000), between(-1000, 1000)]);

export type Vector = readonly [number, number, number];

/** A round coil whose winding fills a rectangle with even density, and how it lies in space. */
export const coilSchema = z
  .strictObject({
    innerMetres: metres,
    outerMetres: metres,
    lengthMetres: metres,
    turns: between(0.1, 1e6),
    centreMetres: vector.default([0, 0, 0]),
    /** The way that the winding turns about, right-handed; its length does not matter. */
    axis: vector.default([0, 0, 1]).refine((v) => Math.hypot(...v) > 1e-12, 'must point somewhere'),
  })
  .refine((c) => c.outerMetres > c.innerMetres, {
    path: ['outerMetres'],
    error: 'must be above the inner diameter',
  });

/** A winding; `innerMetres` and `outerMetres` are diameters. */
export interface Winding {
  innerMetres: number;
  outerMetres: number;
  lengthMetres: number;
  turns: number;
}

export interface Coil extends Winding {
  centreMetres: Vector;
  axis: Vector;
}

/** Permeability of free space, H/m. */
export const MU0 = 4e-7 * Math.PI;
