import * as z from 'zod';
import { opAmpModelSchema } from '@/core/circuit/devices/op-amp-model';
import { notNegative, positive } from '@/core/circuit/part';
import { CONTROLS_FOR } from '@/core/cells/cell';
import { bankSchema } from '@/core/sheet/bank-schema';
import type { Drawing } from '@/core/drawing/drawing';
import { MAKINGS } from '@/core/fit/offers';
import { FACINGS } from '@/core/parts/geometry';
import { askSchema } from '@/core/design/ask';
import { between, within } from '@/core/quantity/bounds';
import { SERIES_NAMES } from '@/core/quantity/series';
import { measureSchema } from '@/core/response/readings';
import { crossoverSchema } from '@/core/sheet/crossover-schema';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import { slotSchema } from '@/core/slots';
import { placeSchema } from '@/core/speaker/place';
import { CORE_NAMES } from '@/core/speaker/coils/wind';
import { isVisible } from '@/core/text';
import { MEASURED_LIMITS } from '@/core/spread/measured';

const id = z.string().min(1, 'must not be empty').max(64, 'must be at most 64 characters long');
const name = z
  .string()
  .max(SHEET_LIMITS.name, `must be at most ${SHEET_LIMITS.name} characters long`);
const when = z.iso.datetime({ error: 'must be a date and time in ISO form' });
const hertz = within('hertz');
const q = between(0.01, 10_000);
const gain = between(-1e6, 1e6);
/** Anything a reading or a wish can be, in the unit of its measure. */
const figure = between(-1e12, 1e12);
/** A part of a value. */
const tolerance = between(0, 0.9);

/** The figures that a stage is designed for. */
export const targetSchema = z.strictObject({
  f0Hz: hertz,
  q: q.optional(),
  gain: gain.optional(),
  zeroHz: hertz.optional(),
  boost: between(1e-6, 1e6).optional(),
  depth: between(1e-9, 1e3).optional(),
  poles: z
    .array(z.strictObject({ f0Hz: hertz, q: q.optional() }))
    .max(12)
    .optional(),
  zerosHz: z.array(hertz).max(8).optional(),
  own: z.record(z.string().max(40), between(-1e12, 1e12)).optional(),
});

/** A point on the grid of a drawing. */
const grid = z.int('must be a whole number').min(-4000).max(4000);
const point = z.tuple([grid, grid]);
const partName = z
  .string()
  .min(1, 'must not be empty')
  .max(40, 'must be at most 40 characters long')
  .regex(/^[^\s,;"/]+$/, 'must not contain spaces, commas, semicolons, strokes or quotes');

/** A drawing of a stage’s own: parts, ports and names on a grid, joined by wires. */
export const drawingSchema = z.strictObject({
  symbols: z
    .array(
      z.union([
        z.strictObject({
          kind: z.string().max(40),
          id: partName,
          at: point,
          toward: z.enum(FACINGS).optional(),
          mirrored: z.boolean().optional(),
          label: z.enum(['above', 'below', 'left', 'right']).optional(),
          with: z.array(z.string().max(40)).max(8).optional(),
        }),
        z.strictObject({
          kind: z.literal('port'),
          name: partName,
          flow: z.enum(['in', 'out']),
          net: partName,
          at: point,
        }),
        z.strictObject({ kind: z.literal('name'), name: partName, at: point }),
        z.strictObject({ kind: z.literal('ground'), at: point }),
      ]),
    )
    .max(SHEET_LIMITS.symbols, `holds at most ${SHEET_LIMITS.symbols} symbols: remove one first`),
  wires: z
    .array(z.array(point).min(2, 'must list at least two points').max(60))
    .max(SHEET_LIMITS.wires, `holds at most ${SHEET_LIMITS.wires} wires: remove one first`),
}) as unknown as z.ZodType<Drawing>;

/** A device or op-amp by what it is; its figures are checked by the kind of the part. */
export const namedModelSchema = z.strictObject({ name, model: z.unknown() });

export const CHOSEN_BY = ['fit', 'hand', 'known', 'solved'] as const;

/** One part of a stage. What is not said is as usual for its kind, or as the sheet chooses. */
export const stagePartSchema = z.strictObject({
  /** Its main number, in SI units: ohms, farads, henries, siemens, amperes, volts. */
  value: z.number({ error: 'must be a finite number' }).optional(),
  /** The two parts that make the value up, where it is not one: of a trimmer, its whole track. */
  made: z
    .strictObject({
      how: z.enum(['parallel', 'series', 'trimmer']),
      of: z.array(positive).length(2, 'must list two values'),
    })
    .optional(),
  /** How it may be made up, where that is other than for all parts. */
  may: z.enum(MAKINGS).optional(),
  /** Who chose the value: the series, the person, a bank’s known parts, or a back-solve. */
  chosen: z.enum(CHOSEN_BY).default('fit'),
  /** Its further numbers, by name: turn, second, k. */
  more: z.record(z.string().max(40), z.number()).optional(),
  /** Where it comes from in the drawer. */
  stock: id.optional(),
  /** How far it may be off, as a part of its value. */
  tolerance: tolerance.optional(),
  losses: z.strictObject({ ohms: notNegative.max(1e9, 'must be at most 1 GΩ') }).optional(),
  /** Of a coil that is wound for it: its resistance follows from that. */
  wound: z
    .strictObject({ wireMetres: between(5e-5, 0.01, ' m'), core: z.enum(CORE_NAMES) })
    .optional(),
  model: namedModelSchema.optional(),
});

/** A drawing with values, in a path; with what it was designed for, where it was designed. */
export const stageSchema = z.strictObject({
  id,
  name: name.optional(),
  /** The topology it was designed as. */
  topology: z.string().max(64, 'must be at most 64 characters long').optional(),
  /** The voltage-controlled cell that its drawing was taken from. */
  cell: z.string().max(64, 'must be at most 64 characters long').optional(),
  /** The transistor stage that it was planned as, and what it was planned from. */
  bias: z
    .strictObject({
      stage: z.string().max(64, 'must be at most 64 characters long'),
      ask: z.strictObject({
        volts: between(1, 100, ' V'),
        amps: within('amps'),
        gain: between(0.1, 1e4),
        sourceOhms: within('ohms'),
        loadOhms: within('ohms'),
      }),
    })
    .optional(),
  /** Its own drawing, where it has been changed or was never any topology’s. */
  drawing: drawingSchema.optional(),
  /** "ask": redesigned whenever the ask changes; "hand": put there by hand and left alone. */
  origin: z.enum(['ask', 'hand']),
  bypassed: z.boolean().default(false),
  /** The output that is passed on, by the name of its port; the main one where none is said. */
  heard: partName.optional(),
  /** What it is in a loudspeaker’s way, and what was asked of it there. */
  slot: slotSchema.optional(),
  /** The figures it was designed for, and the capacitor it was designed from. */
  target: targetSchema.optional(),
  farads: within('farads').optional(),
  ohms: within('ohms').optional(),
  /** How often higher all its impedances are than it was designed with. */
  impedance: between(1e-4, 1e4).optional(),
  /** What each part is, by its id in the drawing. */
  parts: z.record(z.string().max(40), stagePartSchema),
});

/** An output of a stage of some way: of this one where none is said, and its main one. */
export const outputSchema = z.strictObject({
  way: id.optional(),
  stage: id,
  port: partName.optional(),
});

const endFields = {
  name,
  ohms: within('ohms').nullable(),
  farads: within('farads').nullable(),
};

/** Where a way ends. */
export const endSchema = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('load'), ...endFields }),
  /** One of several that are added; each is loaded by the mix’s own input. */
  z.strictObject({ is: z.literal('mix'), ...endFields, gain: gain.default(1) }),
  /** A loudspeaker of the drivers’ table. */
  z.strictObject({
    is: z.literal('driver'),
    name,
    driver: id,
    inverted: z.boolean().default(false),
    /** Where its acoustic centre is, in front of the loudspeaker; at its middle where nothing is said. */
    place: placeSchema.optional(),
    /** An amplifier of its own before it: the way ahead of that is an active one. */
    amplifier: z
      .strictObject({
        gainDb: between(-60, 80, ' dB'),
        ohms: notNegative.max(1000, 'must be at most 1 kΩ'),
      })
      .optional(),
  }),
]);

/** One signal path, from the source or from an output of a stage. A crossover has several. */
export const waySchema = z.strictObject({
  id,
  name,
  from: z
    .discriminatedUnion('is', [
      z.strictObject({
        is: z.literal('source'),
        /** Resistance of its own on the way from the source. */
        ohms: notNegative.max(1e10, 'must be at most 10 GΩ').optional(),
      }),
      z.strictObject({ is: z.literal('output'), of: outputSchema }),
    ])
    .default({ is: 'source' }),
  stages: z
    .array(stageSchema)
    .max(SHEET_LIMITS.stages, `holds at most ${SHEET_LIMITS.stages} stages: remove one first`),
  to: endSchema,
});

/** What drives every way: it stands once. */
export const sourceSchema = z.strictObject({
  name,
  ohms: notNegative.max(1e10, 'must be at most 10 GΩ'),
  volts: within('volts').default(1),
});

/** A shaft, a control voltage or a control current, and what it moves. */
export const controlSchema = z.strictObject({
  id,
  name,
  is: z.enum(['turn', 'volts', 'amps']),
  /** What it is for, where the cell that it came with says so. */
  for: z.enum(CONTROLS_FOR).optional(),
  /** The volts or amperes at both ends of its travel, where it is no turn of a shaft. */
  span: z.strictObject({ from: figure, to: figure }).optional(),
  /** Where it stands, from 0 to 1 of its travel. */
  at: between(0, 1),
  /** What of the exponential converter that drives it is not ideal, where that is known. */
  converter: z
    .strictObject({
      ppmPerKelvin: between(0, 20_000, ' ppm/K'),
      ohms: notNegative.max(1000, 'must be at most 1 kΩ'),
      warmReference: z.boolean().optional(),
    })
    .optional(),
  /** The key that turns it up; with Shift it turns it down. */
  key: z
    .string()
    .regex(/^[a-z]$/, 'must be a letter from a to z')
    .optional(),
  /** The knob of a MIDI controller that moves it, by its number. */
  midi: z.int().min(0).max(127).optional(),
  /** What is wanted of its travel: a reading at both ends of it. */
  reach: z.strictObject({ reading: id, from: figure, to: figure }).optional(),
  moves: z
    .array(
      z.strictObject({
        way: id.optional(),
        stage: id,
        part: z.string().max(40),
        quantity: z.string().max(40),
        /** The quantity at both ends of the travel, and how it goes between. */
        from: figure,
        to: figure,
        law: z.enum(['even', 'by ratio', 'by table']).default('even'),
        /** By a table: the quantity at further places, straight lines between them. */
        table: z
          .array(z.strictObject({ at: between(0, 1), value: figure }))
          .max(60, 'holds at most 60 places')
          .optional(),
      }),
    )
    .max(SHEET_LIMITS.moves, `moves at most ${SHEET_LIMITS.moves} numbers`),
});

/** One board that is built or planned: parts that differ from the sheet’s, and its takes. */
const stepId = z.string().min(1).max(120);

export const boardSchema = z.strictObject({
  id,
  name,
  /** Measured or chosen values, by way, stage and part ("w1/s1/R1"). */
  values: z.record(z.string().max(200), z.number()).default({}),
  /** Takes in the takes’ table. */
  takes: z.array(id).max(200).default([]),
  /** Those of them that are weighed with whichever is looked at. */
  together: z.array(id).max(200).optional(),
  note: z.string().max(2000).default(''),
  /** Steps of building and trying it that are done, by id. */
  done: z.array(stepId).max(500, 'holds at most 500 steps').optional(),
  /** What was read at steps, in the unit of what is read there. */
  reads: z.record(stepId, figure).optional(),
  /** Present of a board that is built: what was taken from the drawer for it, pieces by entry. */
  took: z.record(id, z.int().min(1).max(1_000_000)).optional(),
});

/** What the wanted column says of a reading, in the unit of its measure. */
export const wantedSchema = z.discriminatedUnion('is', [
  z.strictObject({
    is: z.literal('near'),
    value: figure,
    tolerance: notNegative.max(1e12),
    relative: z.boolean(),
  }),
  z.strictObject({ is: z.literal('at-least'), value: figure }),
  z.strictObject({ is: z.literal('at-most'), value: figure }),
]);

export const readingSchema = z.strictObject({
  id,
  name: name.optional(),
  measure: measureSchema,
  wanted: wantedSchema.optional(),
  /** Another output than the end of the way. */
  at: outputSchema.optional(),
});

const measuredPieces = z
  .array(between(MEASURED_LIMITS.least, MEASURED_LIMITS.most))
  .max(MEASURED_LIMITS.pieces, `holds at most ${MEASURED_LIMITS.pieces} pieces`);

/** How far parts are off where nothing is said of a part itself, and how they lie within that. */
export const deviationsSchema = z.strictObject({
  resistor: tolerance,
  capacitor: tolerance,
  inductor: tolerance,
  potentiometer: tolerance,
  /** Of the gain-bandwidth of op-amps. */
  opAmp: tolerance,
  /** Around the middle: also of kinds of which nothing was measured. */
  shape: z.enum(['uniform', 'normal', 'measured']),
  /** Of pieces that were measured: how far each was off, as a part of its value. */
  measured: z
    .strictObject({
      resistor: measuredPieces.optional(),
      capacitor: measuredPieces.optional(),
      inductor: measuredPieces.optional(),
    })
    .optional(),
  /** Whether parts of one kind come off one reel and are off together. */
  oneReel: z.boolean(),
  /** Kelvins that the room may be away from the temperature that values are given at. */
  kelvins: between(0, 100),
});

/** What feeds the op-amps of a sheet. */
export const supplySchema = z.discriminatedUnion('is', [
  /** Rails either side of ground. */
  z.strictObject({ is: z.literal('split'), volts: between(1, 60, ' V') }),
  /** One rail, and half of it made by two equal resistors, bypassed by a capacitor. */
  z.strictObject({
    is: z.literal('single'),
    volts: between(1, 60, ' V'),
    ohms: within('ohms'),
    farads: within('farads'),
  }),
]);

export const partChoicesSchema = z.strictObject({
  opAmp: z.strictObject({ name, model: z.union([z.literal('ideal'), opAmpModelSchema]) }),
  resistors: z.enum([...SERIES_NAMES, 'exact']),
  capacitors: z.enum([...SERIES_NAMES, 'exact']),
  inductors: z.enum([...SERIES_NAMES, 'exact']).default('E12'),
  /** Where nothing is said, ±15 V. */
  supply: supplySchema.optional(),
  /** Where they are other than usual. */
  deviations: deviationsSchema.optional(),
});

/** What a keep holds and going back restores: the design, without its history. */
export const designSchema = z.strictObject({
  ask: askSchema,
  parts: partChoicesSchema,
  source: sourceSchema,
  ways: z
    .array(waySchema)
    .min(1, 'must list at least one path')
    .max(SHEET_LIMITS.ways, `holds at most ${SHEET_LIMITS.ways} paths`),
  readings: z
    .array(readingSchema)
    .max(
      SHEET_LIMITS.readings,
      `holds at most ${SHEET_LIMITS.readings} readings: remove one first`,
    ),
  /** Present in a crossover: its ways leave one amplifier and meet again in the air. */
  crossover: crossoverSchema.optional(),
  /** Present in a bank: its ways are the channels, in this order. */
  bank: bankSchema.optional(),
  controls: z
    .array(controlSchema)
    .max(SHEET_LIMITS.controls, `holds at most ${SHEET_LIMITS.controls} controls`)
    .default([]),
  /** Where each part stands on a stripboard, by its name in the circuit. */
  stripboard: z
    .strictObject({
      rows: z.int().min(1).max(SHEET_LIMITS.holes),
      cols: z.int().min(1).max(SHEET_LIMITS.holes),
      parts: z.record(
        z.string().max(200),
        z.strictObject({
          at: z.strictObject({ row: z.int().min(-99).max(199), col: z.int().min(-99).max(199) }),
          turn: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]),
          span: z.int().min(0).max(20),
        }),
      ),
    })
    .optional(),
  boards: z
    .array(boardSchema)
    .max(SHEET_LIMITS.boards, `holds at most ${SHEET_LIMITS.boards} boards`)
    .default([]),
});

export const keepSchema = z.strictObject({
  id,
  name,
  at: when,
  shown: z.boolean().default(true),
  design: designSchema,
});

export const viewSchema = z.strictObject({
  /** Name of a lens; one that this program does not have shows as the first. */
  lens: name,
  fromHz: hertz,
  toHz: hertz,
});

export const SHEET_VERSION = 2;

/** The sheet format, version 2. Published as JSON Schema in docs/formats. */
export const sheetSchema = z.strictObject({
  format: z.literal('jaunty-reed/sheet', { error: 'must be "jaunty-reed/sheet"' }),
  version: z.literal(SHEET_VERSION),
  id,
  title: name.refine(isVisible, 'must have a letter, a digit or a sign'),
  createdAt: when,
  updatedAt: when,
  /** Rises by one at every save; two tabs notice each other by it. */
  revision: z.int().nonnegative('must not be negative'),
  /** The demo sheet it is, if any. */
  demo: z.string().max(64).optional(),
  ...designSchema.shape,
  keeps: z
    .array(keepSchema)
    .max(SHEET_LIMITS.keeps, `holds at most ${SHEET_LIMITS.keeps} keeps: remove one first`),
  view: viewSchema,
});

export type Sheet = z.infer<typeof sheetSchema>;
export type SheetDesign = z.infer<typeof designSchema>;
export type Way = z.infer<typeof waySchema>;
export type Source = z.infer<typeof sourceSchema>;
/** An end; a loudspeaker's model stands in no document, but is put in from the library before solving. */
export type WayEnd = z.infer<typeof endSchema> & { model?: unknown };
export type Stage = z.infer<typeof stageSchema>;
export type StagePart = z.infer<typeof stagePartSchema>;
export type ChosenBy = (typeof CHOSEN_BY)[number];
export type Output = z.infer<typeof outputSchema>;
export type Control = z.infer<typeof controlSchema>;
export type Reading = z.infer<typeof readingSchema>;
export type Wanted = z.infer<typeof wantedSchema>;
export type Keep = z.infer<typeof keepSchema>;
export type Supply = z.infer<typeof supplySchema>;
export type Deviations = z.infer<typeof deviationsSchema>;
export type PartChoices = z.infer<typeof partChoicesSchema>;
export type SheetView = z.infer<typeof viewSchema>;
