import * as z from 'zod';
import { notNegative } from '@/core/circuit/part';
import { between, within } from '@/core/quantity/bounds';

const litres = between(1e-4, 1e5, ' l');

/** What a loudspeaker unit is put into. */
export const mountingSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('open') }),
  z.strictObject({ kind: z.literal('closed'), litres }),
  z.strictObject({
    kind: z.literal('vented'),
    litres,
    tuningHz: within('hertz'),
    /** Q of the box by its leaks at the tuning; absent where it has none. */
    leakQ: between(0.1, 1e6).optional(),
  }),
]);

/**
 * The small-signal figures of a loudspeaker unit as a data sheet names them
 * (A. N. Thiele, "Loudspeakers in Vented Boxes", J. Audio Eng. Soc. 19, 1971;
 * R. H. Small, "Direct-Radiator Loudspeaker System Analysis", J. Audio Eng. Soc. 20, 1972).
 */
export const figuresFields = {
  /** Resonance in free air, and its Q by mechanical and by electrical losses. */
  fsHz: within('hertz'),
  qms: between(0.01, 1000),
  qes: between(0.01, 1000),
  /** The volume of air that is as stiff as what the cone hangs on. */
  vasLitres: litres,
  /** Resistance and inductance of the voice coil. */
  reOhms: within('ohms'),
  leHenries: notNegative.max(1, 'must be at most 1 H'),
  /** Area of the cone. */
  sdSquareCentimetres: between(1e-3, 1e5, ' cm²'),
  mounting: mountingSchema,
  /** A second inductance that a resistance lies across: what eddy currents leave of it. */
  lossyInductance: z.strictObject({ henries: within('henries'), ohms: within('ohms') }).optional(),
  /** How far the cone moves out or in before it is no longer linear. */
  xmaxMillimetres: between(1e-3, 1000, ' mm').optional(),
  /** Long-term power that the voice coil bears. */
  powerWatts: between(1e-3, 1e5, ' W').optional(),
};

export const figuresSchema = z.strictObject(figuresFields);

export type Mounting = z.infer<typeof mountingSchema>;
export type UnitFigures = z.infer<typeof figuresSchema>;

/** The same in the units of mechanics. */
export interface Mechanics {
  /** Area of the cone, m2. */
  area: number;
  /** Compliance of what it hangs on, m/N; moving mass, kg; loss, N s/m. */
  compliance: number;
  mass: number;
  loss: number;
  /** Force factor Bl, N/A. */
  force: number;
}

/** The radius of a cone of an area, metres. */
export const coneRadius = (squareCentimetres: number): number =>
  Math.sqrt((squareCentimetres * 1e-4) / Math.PI);

/** By how much the air of a closed box raises a resonance, and its Qs with it. */
export const riseInBox = ({
  mounting,
  vasLitres,
}: Partial<Pick<UnitFigures, 'mounting' | 'vasLitres'>>): number =>
  mounting?.kind === 'closed' && vasLitres ? Math.sqrt(1 + vasLitres / mounting.litres) : 1;
