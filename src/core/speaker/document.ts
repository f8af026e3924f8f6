import * as z from 'zod';
import { partSchema, type Part } from '@/core/circuit/schema';
import { net, partId } from '@/core/circuit/part';
import { checkBounds } from '@/core/document/bounded';
import { firstIssue } from '@/core/document/issue';
import { ReedError } from '@/core/errors';
import { between, within } from '@/core/quantity/bounds';
import { quoted } from '@/core/text';
import { figuresFields, figuresSchema, type UnitFigures } from './figures';
import { measuredFault, measuredSchema } from './measured';
import { placeSchema } from './place';
import { surroundingsSchema } from './surroundings';

/** How a unit spreads its sound: alike into half space, or as a flat round piston of its cone's area. */
export const DIRECTIVITIES = ['even', 'piston'] as const;

/** Everything to be known of a unit wherever it is used: its figures, what was measured of it, or both. */
export const unitModelFields = {
  ...z.strictObject(figuresFields).partial().shape,
  measured: measuredSchema.optional(),
  /** What a textbook takes a driver for: a resistance that sounds alike at all frequencies. */
  ideal: z
    .strictObject({ ohms: within('ohms'), levelDb: between(-400, 400, ' dB').default(90) })
    .optional(),
  directivity: z.enum(DIRECTIVITIES).default('even'),
};

export const unitSchema = z.strictObject({
  id: partId,
  name: z.string().max(120, 'must be at most 120 characters long').default(''),
  ...unitModelFields,
  /** Its acoustic centre. */
  place: placeSchema.default({ xMetres: 0, yMetres: 0, zMetres: 0 }),
});
export type Unit = z.infer<typeof unitSchema>;

/** Where a way begins and ends in the air: an edge, its shape and its order. */
const edgeSchema = z.strictObject({
  shape: z.enum(['butterworth', 'linkwitz-riley', 'bessel']),
  order: z.int('must be a whole number').min(1, 'must be at least 1').max(8, 'must be at most 8'),
  hz: within('hertz'),
});
export type AcousticEdge = z.infer<typeof edgeSchema>;

const wayTargetSchema = z.strictObject({
  driver: partId,
  highPass: edgeSchema.optional(),
  lowPass: edgeSchema.optional(),
  /** How far its level may lie from that shape, over the band and down to 18 dB below its top. */
  withinDb: between(0.1, 100, ' dB').default(3),
});
export type WayTarget = z.infer<typeof wayTargetSchema>;

const phaseTargetSchema = z.strictObject({
  /** Two ways that meet, by their drivers. */
  lower: partId,
  upper: partId,
  hz: within('hertz'),
  /** How far they may be apart at the listening place, half an octave to either side. */
  withinDegrees: between(1, 180, '°'),
});
export type PhaseTarget = z.infer<typeof phaseTargetSchema>;

/** What a network is brought to on its true units. */
export const targetSchema = z.strictObject({
  /** The sum at the listening place lies within so many dB of its own mean over these frequencies. */
  fromHz: within('hertz'),
  toHz: within('hertz'),
  withinDb: between(1e-3, 100, ' dB'),
  /** What the amplifier is loaded with from 20 Hz to 20 kHz is never less. */
  leastOhms: between(0, 1e6, ' Ω').default(0),
  /** The parts whose values may change. */
  free: z.array(partId).max(200).default([]),
  /** What single ways are to be like. */
  ways: z.array(wayTargetSchema).max(20).optional(),
  /** Ways that are to stay in phase through their crossing. */
  phases: z.array(phaseTargetSchema).max(20).optional(),
});
export type SpeakerTarget = z.infer<typeof targetSchema>;

/** The speaker format, version 1. Published as JSON Schema in docs/formats. */
export const speakerSchema = z.strictObject({
  format: z.literal('jaunty-reed/speaker', { error: 'must be "jaunty-reed/speaker"' }),
  version: z.literal(1, { error: 'must be 1, the only version this program reads' }),
  title: z.string().max(200).default(''),
  /** Volts of the amplifier, and what resistance it is behind; the network begins at net “amp”. */
  drive: z
    .strictObject({
      volts: within('volts'),
      sourceOhms: between(0, 1e6, ' Ω').default(0),
    })
    .default({ volts: 2.83, sourceOhms: 0 }),
  drivers: z
    .array(unitSchema)
    .min(1, 'must list at least one driver')
    .max(20, 'holds at most 20 drivers'),
  network: z.array(partSchema).max(500, 'holds at most 500 parts').default([]),
  connections: z.array(z.strictObject({ driver: partId, plus: net, minus: net })).max(20),
  listen: placeSchema.default({ xMetres: 0, yMetres: 0, zMetres: 1 }),
  /** What stands around it; nothing where nothing is said: its units in an endless wall. */
  surroundings: surroundingsSchema.optional(),
  target: targetSchema.optional(),
});

export interface SpeakerDocument extends Omit<z.infer<typeof speakerSchema>, 'network'> {
  network: Part[];
}

/** The net at which the amplifier hangs, and ground. */
export const AMP_NET = 'amp';
export const GROUND_NET = '0';

/**
 * Check and read a speaker document.
 *
 * @throws ReedError `document` naming the field and what is wrong with it
 */
export function readSpeaker(document: unknown): SpeakerDocument {
  checkBounds(document);
  const result = speakerSchema.safeParse(document);
  const complaint = result.success ? speakerFault(result.data) : firstIssue(result.error, document);
  if (complaint) {
    const { path, message } = complaint;
    const where = path === '' ? ': it' : ` at ${quoted(path)}:`;
    throw new ReedError('document', `The speaker cannot be read${where} ${message}.`, { path });
  }
  return result.data!;
}

/** What is wrong with a document whose fields are each in order. */
export function speakerFault({
  drivers,
  connections,
  network,
  listen,
  target,
}: SpeakerDocument): { path: string; message: string } | null {
  for (const [i, unit] of drivers.entries()) {
    const path = `drivers[${i}]`;
    if (drivers.findIndex((d) => d.id === unit.id) < i)
      return { path: `${path}.id`, message: `two drivers are called ${quoted(unit.id)}` };
    const fault = unitFault(unit);
    if (fault) return { path: `${path}${fault.path}`, message: fault.message };
    const { place } = unit;
    if (
      place.xMetres === listen.xMetres &&
      place.yMetres === listen.yMetres &&
      place.zMetres === listen.zMetres
    )
      return { path: 'listen', message: `is where the driver ${quoted(unit.id)} is` };
    if (!connections.some((c) => c.driver === unit.id))
      return { path: 'connections', message: `the driver ${quoted(unit.id)} is not connected` };
  }
  for (const [i, { driver }] of connections.entries()) {
    const path = `connections[${i}].driver`;
    if (!drivers.some((d) => d.id === driver))
      return { path, message: `there is no driver ${quoted(driver)}` };
    if (connections.findIndex((c) => c.driver === driver) < i)
      return { path, message: `${quoted(driver)} is connected twice` };
  }
  if (!target) return null;
  if (target.toHz <= target.fromHz)
    return { path: 'target.toHz', message: 'must be above the lower frequency' };
  const foreign = target.ways?.findIndex((w) => !drivers.some((d) => d.id === w.driver)) ?? -1;
  if (foreign >= 0)
    return {
      path: `target.ways[${foreign}].driver`,
      message: `there is no driver ${quoted(target.ways![foreign].driver)}`,
    };
  const strange = (target.phases ?? []).flatMap(({ lower, upper }, i) =>
    (
      [
        ['lower', lower],
        ['upper', upper],
      ] as const
    ).flatMap(([name, id]) =>
      drivers.some((d) => d.id === id)
        ? []
        : [
            {
              path: `target.phases[${i}].${name}`,
              message: `there is no driver ${quoted(id)}`,
            },
          ],
    ),
  );
  if (strange.length > 0) return strange[0];
  const missing = target.free.findIndex((id) => !network.some((p) => p.id === id));
  if (missing >= 0)
    return {
      path: `target.free[${missing}]`,
      message: `there is no part ${quoted(target.free[missing])} in the network`,
    };
  return null;
}

/**
 * What is wrong with a unit beyond its single fields.
 *
 * @param as “terminals” where it is enough to know what it is to its amplifier
 */
export function unitFault(
  unit: Pick<Unit, 'measured' | 'ideal'> & Partial<UnitFigures>,
  as: 'sound' | 'terminals' = 'sound',
): { path: string; message: string } | null {
  const fault = unit.measured && measuredFault(unit.measured);
  if (fault) return { path: `.measured.${fault.path}`, message: fault.message };
  const { level, impedance } = unit.measured ?? {};
  if (unit.ideal || as === 'terminals' || figuresOf(unit) !== undefined || (level && impedance))
    return null;
  const missing = REQUIRED.find((name) => unit[name] === undefined)!;
  return {
    path: `.${missing}`,
    message: 'is missing, and it was not measured in both level and impedance',
  };
}

const REQUIRED = [
  'fsHz',
  'qms',
  'qes',
  'vasLitres',
  'reOhms',
  'leHenries',
  'sdSquareCentimetres',
  'mounting',
] as const;

/** The figures of a unit that has all that are needed. */
export function figuresOf(unit: Partial<UnitFigures>): UnitFigures | undefined {
  if (REQUIRED.some((name) => unit[name] === undefined)) return undefined;
  const names = Object.keys(figuresSchema.shape) as (keyof UnitFigures)[];
  return Object.fromEntries(
    names.flatMap((name) => (unit[name] === undefined ? [] : [[name, unit[name]]])),
  ) as unknown as UnitFigures;
}
