import * as z from 'zod';
import { ReedError } from '@/core/errors';
import { between, within } from '@/core/quantity/bounds';
import { singlyTerminated } from '@/core/response/ladder';
import { lowPassPrototype, type PoleSection } from '@/core/response/prototypes';
import type { Arm, ArmPart } from './arms';
import { defineSlot } from './slot-kind';

export const ALIGNMENTS = [
  'butterworth',
  'linkwitz-riley',
  'between',
  'bessel',
  'chebyshev',
] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

export const ALIGNMENT_WORDS: Readonly<Record<Alignment, string>> = {
  butterworth: 'Butterworth',
  'linkwitz-riley': 'Linkwitz-Riley',
  between: 'between the two',
  bessel: 'Bessel',
  chebyshev: 'Chebyshev',
};

/** Orders that sections are made of. */
export const ORDERS = [1, 2, 3, 4] as const;

const common = {
  is: z.literal('section'),
  alignment: z.enum(ALIGNMENTS),
  order: z.int('must be a whole number').min(1, 'must be at least 1').max(4, 'must be at most 4'),
  /** The resistance that the way behind it is taken for. */
  ohms: between(0.5, 1000, ' Ω'),
};

const schema = z.discriminatedUnion('pass', [
  z.strictObject({ ...common, pass: z.enum(['low', 'high']), hz: within('hertz') }),
  z.strictObject({
    ...common,
    pass: z.literal('band'),
    lowerHz: within('hertz'),
    upperHz: within('hertz'),
  }),
]);
export type SectionSlot = z.infer<typeof schema>;
/** A section with one edge. */
export type EdgeSlot = Exclude<SectionSlot, { pass: 'band' }>;

/** An alignment has every order but where it is made of two equal halves. */
export const hasOrder = (alignment: Alignment, order: number): boolean =>
  alignment === 'linkwitz-riley' || alignment === 'between' ? order % 2 === 0 : true;

/** Poles of the low-pass at 1 rad/s. */
export function polesOf({
  alignment,
  order,
}: Pick<SectionSlot, 'alignment' | 'order'>): PoleSection[] {
  if (!hasOrder(alignment, order))
    throw new ReedError(
      'design',
      `There is no ${ALIGNMENT_WORDS[alignment]} section of order ${order}: take order ${order + 1}, or another alignment.`,
    );
  if (alignment !== 'between') return lowPassPrototype({ shape: alignment, order }).sections;
  // Each pair has the Q that lies in the middle, by ratio, of those of its neighbours.
  const steep = lowPassPrototype({ shape: 'butterworth', order }).sections;
  const soft = lowPassPrototype({ shape: 'linkwitz-riley', order }).sections;
  const qs = (s: readonly PoleSection[]) => s.map((p) => p.q!).sort((a, b) => a - b);
  const [a, b] = [qs(steep), qs(soft)];
  return a.map((q, i) => ({ w0: 1, q: Math.sqrt(q * b[i]) }));
}

/** The low-pass ladder into one ohm, from a source without resistance: coils in line, capacitors across. */
const ladderOf = (slot: SectionSlot): readonly number[] => singlyTerminated(polesOf(slot)).elements;

/**
 * A low-pass, high-pass or band-pass section as a ladder into a resistance, driven by an amplifier
 * (L. Weinberg, "Network Analysis and Synthesis", 1962, chapter 13). A high-pass has 1/s for s, a
 * band-pass (s/w0 + w0/s) w0/B.
 */
export const section = defineSlot<SectionSlot>({
  is: 'section',
  schema,
  title: 'Low-pass, high-pass or band-pass',
  about: 'Divides the band: order, alignment and frequency, into the nominal load',
  name(slot, { hz }) {
    const order = `${slot.order}${['st', 'nd', 'rd', 'th'][slot.order - 1]}`;
    return slot.pass === 'band'
      ? `${order} band-pass ${hz(slot.lowerHz)}–${hz(slot.upperHz)}`
      : `${order} ${slot.pass}-pass ${hz(slot.hz)}`;
  },
  arms: ({ order, pass }) =>
    Array.from({ length: order }, (_, k): Arm => {
      const n = k + 1;
      const inLine = k % 2 === 0;
      const coil: ArmPart = ['coil', `L${n}`];
      const capacitor: ArmPart = ['capacitor', `C${n}`];
      const at = inLine ? 'line' : 'across';
      if (pass === 'band')
        return {
          at,
          join: inLine ? 'row' : 'beside',
          parts: inLine ? [coil, capacitor] : [capacitor, coil],
        };
      return { at, join: 'row', parts: [(pass === 'low') === inLine ? coil : capacitor] };
    }),
  values(slot) {
    const { ohms, pass } = slot;
    if (pass === 'band' && !(slot.upperHz > slot.lowerHz))
      throw new ReedError('design', 'The upper frequency of a band-pass must lie above the lower.');
    const values: Record<string, number> = {};
    ladderOf(slot).forEach((g, k) => {
      const n = k + 1;
      const inLine = k % 2 === 0;
      if (pass === 'band') {
        const [w0, width] = [
          2 * Math.PI * Math.sqrt(slot.lowerHz * slot.upperHz),
          2 * Math.PI * (slot.upperHz - slot.lowerHz),
        ];
        // The low-pass element over the band's width, and what resonates with it at the middle.
        const [main, other] = inLine ? ['L', 'C'] : ['C', 'L'];
        const value = inLine ? (g * ohms) / width : g / (width * ohms);
        values[`${main}${n}`] = value;
        values[`${other}${n}`] = 1 / (w0 * w0 * value);
        return;
      }
      const w = 2 * Math.PI * slot.hz;
      if (pass === 'low')
        values[inLine ? `L${n}` : `C${n}`] = inLine ? (g * ohms) / w : g / (w * ohms);
      else values[inLine ? `C${n}` : `L${n}`] = inLine ? 1 / (g * w * ohms) : ohms / (g * w);
    });
    return values;
  },
});
