import * as z from 'zod';
import { opAmpModelSchema } from '@/core/circuit/devices/op-amp-model';
import { positive } from '@/core/circuit/part';
import { between, within } from '@/core/quantity/bounds';
import { EDGES, SHAPES, type Edge } from '@/core/response/prototypes';

export const ASK_KINDS = [
  'low-pass',
  'high-pass',
  'band-pass',
  'band-stop',
  'wide-band',
  'notch',
  'peak',
  'low-shelf',
  'high-shelf',
  'all-pass',
  'tilt',
] as const;
export type AskKind = (typeof ASK_KINDS)[number];

/** What each kind is placed by. */
export const placedBy = (kind: AskKind): 'edge' | 'band' | 'centre' => {
  switch (kind) {
    case 'band-pass':
    case 'band-stop':
    case 'wide-band':
      return 'band';
    case 'notch':
    case 'peak':
      return 'centre';
    default:
      return 'edge';
  }
};

/** Kinds made of a shape and an order; the others are one section, or several equal ones. */
export const hasShape = (kind: AskKind): boolean =>
  ['low-pass', 'high-pass', 'band-pass', 'band-stop', 'wide-band', 'all-pass'].includes(kind);
export const hasOrder = (kind: AskKind): boolean => hasShape(kind) || /shelf/.test(kind);
/** Kinds whose `gainDb` is how far they lift or cut, not the level of a pass band. */
export const liftsByGain = (kind: AskKind): boolean =>
  kind === 'peak' || kind === 'tilt' || /shelf/.test(kind);

const hertz = within('hertz', 1e7);
const passDb = between(1e-4, 12, ' dB');
const stopDb = between(0.01, 160, ' dB');

/** What must pass and what must not; the order follows. */
export const limitsSchema = z.union([
  z.strictObject({ passHz: hertz, passDb, stopHz: hertz, stopDb }),
  z.strictObject({
    passLowerHz: hertz,
    passUpperHz: hertz,
    stopLowerHz: hertz,
    stopUpperHz: hertz,
    passDb,
    stopDb,
  }),
]);
export type Limits = z.infer<typeof limitsSchema>;

export const SECTION_ORDERS = ['lowest-q', 'headroom', 'least-noise'] as const;
export type SectionOrder = (typeof SECTION_ORDERS)[number];

/** The wanted response of one path. */
export const askFields = {
  kind: z.enum(ASK_KINDS),
  shape: z.enum(SHAPES).default('butterworth'),
  /** The prototype's: a band-pass of order 2 has two pole pairs. */
  order: z.int().min(1, 'must be at least 1').max(10, 'must be at most 10').optional(),
  limits: limitsSchema.optional(),
  edgeHz: hertz.optional(),
  lowerHz: hertz.optional(),
  upperHz: hertz.optional(),
  centreHz: hertz.optional(),
  /** Centre over width: at half power; of a peak at half its height in dB. */
  q: between(0.01, 200).optional(),
  edge: z.enum(EDGES).optional(),
  rippleDb: between(1e-4, 12, ' dB').optional(),
  stopbandDb: between(6, 160, ' dB').optional(),
  /** Phase ripple of the equal-ripple phase shape. */
  rippleDegrees: between(1e-4, 2, ' degrees').optional(),
  /** Pass-band gain, or how far a peak, shelf or tilt lifts; left out, what the topology gives. */
  gainDb: between(-60, 60, ' dB').optional(),
  /** Topology of the stages, or of the one stage that is the whole filter. */
  topology: z.string().max(64).optional(),
  /** In what order the sections follow each other. */
  sectionOrder: z.enum(SECTION_ORDERS).optional(),
  capacitorFarads: within('farads').optional(),
  impedanceOhms: within('ohms').optional(),
  /** What parts there are; a value outside is refused. */
  partLimits: z
    .strictObject({
      leastOhms: positive.optional(),
      greatestOhms: positive.optional(),
      leastFarads: positive.optional(),
      greatestFarads: positive.optional(),
    })
    .optional(),
};

type Fields = z.infer<z.ZodObject<typeof askFields>>;

/** Whatever a kind needs must be there; each complaint names the field. */
function complete(ask: Fields, context: z.RefinementCtx): void {
  const need = (path: string, message: string) =>
    context.addIssue({ code: 'custom', path: [path], message });
  const band = ask.lowerHz !== undefined && ask.upperHz !== undefined;
  const centre = ask.centreHz !== undefined && ask.q !== undefined;
  if (ask.limits === undefined) {
    const place = placedBy(ask.kind);
    if (place === 'edge' && ask.edgeHz === undefined && !(ask.kind === 'all-pass' && centre))
      need('edgeHz', `is missing: a ${ask.kind} is placed by its edge`);
    if (place !== 'edge' && !band && !centre)
      need(
        place === 'band' ? 'lowerHz' : 'centreHz',
        `is missing: a ${ask.kind} is placed by lowerHz and upperHz, or by centreHz and q`,
      );
    if (hasShape(ask.kind) && ask.order === undefined && !(ask.kind === 'all-pass' && centre))
      need('order', 'is missing: give the order, or limits that it follows from');
  } else if (!['low-pass', 'high-pass', 'band-pass', 'band-stop'].includes(ask.kind))
    need(
      'limits',
      `cannot place a ${ask.kind}: they are for low-pass, high-pass, band-pass and band-stop`,
    );
  else if ('passHz' in ask.limits !== (placedBy(ask.kind) === 'edge'))
    need(
      'limits',
      `of a ${ask.kind} are ${placedBy(ask.kind) === 'edge' ? 'passHz, passDb, stopHz and stopDb' : 'passLowerHz, passUpperHz, stopLowerHz, stopUpperHz, passDb and stopDb'}`,
    );
  if (band && !(ask.upperHz! > ask.lowerHz!)) need('upperHz', 'must lie above lowerHz');
  if (liftsByGain(ask.kind) && ask.gainDb === undefined)
    need('gainDb', `is missing: it says how far a ${ask.kind} lifts (or cuts, below zero)`);
  if (liftsByGain(ask.kind) && ask.gainDb === 0)
    need('gainDb', 'must not be zero: nothing would be lifted');
}

export const askSchema = z.strictObject(askFields).superRefine(complete);
export type Ask = z.infer<typeof askSchema>;

/** An ask as a file of its own. */
export const askFileSchema = z
  .strictObject({
    format: z.literal('jaunty-reed/ask', { error: 'must be "jaunty-reed/ask"' }),
    version: z.literal(1, { error: 'must be 1' }),
    ...askFields,
    opAmp: z.union([z.literal('ideal'), opAmpModelSchema]).default('ideal'),
  })
  .superRefine(complete);
export type AskFile = z.infer<typeof askFileSchema>;

/** The edge convention: -3 dB, but -6 dB where a Linkwitz-Riley shape's halves cross. */
export const edgeOf = (ask: Pick<Ask, 'edge' | 'shape'>): Edge =>
  ask.edge ?? (ask.shape === 'linkwitz-riley' ? 'half-voltage' : 'half-power');

type Placed = Pick<Ask, 'lowerHz' | 'upperHz' | 'centreHz' | 'q'>;

/** Edges of a band: as asked, or around the centre with width centre/q, geometrically. */
export function bandOf(ask: Placed): { lowerHz: number; upperHz: number } {
  if (ask.lowerHz !== undefined && ask.upperHz !== undefined)
    return { lowerHz: ask.lowerHz, upperHz: ask.upperHz };
  const { centreHz, q } = centreOf(ask);
  const half = 1 / (2 * q);
  const root = Math.sqrt(1 + half * half);
  return { lowerHz: centreHz * (root - half), upperHz: centreHz * (root + half) };
}

export function centreOf(ask: Placed): { centreHz: number; q: number } {
  if (ask.centreHz !== undefined && ask.q !== undefined)
    return { centreHz: ask.centreHz, q: ask.q };
  const { lowerHz, upperHz } = ask as { lowerHz: number; upperHz: number };
  const centreHz = Math.sqrt(lowerHz * upperHz);
  return { centreHz, q: centreHz / (upperHz - lowerHz) };
}

/** The frequency an ask is about: its edge, or the geometric middle of its band. */
export function mainHz(ask: Ask): number {
  if (ask.limits) {
    const l = ask.limits;
    return 'passHz' in l ? l.passHz : Math.sqrt(l.passLowerHz * l.passUpperHz);
  }
  return ask.edgeHz ?? centreOf(ask).centreHz;
}

/** The same ask at another place: every frequency moves in proportion. */
export function placedAt(ask: Ask, hz: number): Ask {
  const factor = hz / mainHz(ask);
  const move = <T extends object>(x: T): T =>
    Object.fromEntries(
      Object.entries(x).map(([k, v]) => [k, k.endsWith('Hz') ? (v as number) * factor : v]),
    ) as T;
  const moved = move(ask);
  return {
    ...moved,
    // The one number that was typed is kept to the digit.
    ...(moved.edgeHz === undefined ? {} : { edgeHz: hz }),
    ...(moved.centreHz === undefined ? {} : { centreHz: hz }),
    ...(ask.limits ? { limits: move(ask.limits) } : {}),
  };
}
