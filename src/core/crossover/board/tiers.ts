import { messageOf } from '@/core/errors';
import { drawnParts } from '@/core/sheet/stage';
import type { Sheet, StagePart } from '@/core/sheet/schema';
import { windCoil, type CoreName } from '@/core/speaker/coils/wind';
import { hasAmplifiers } from '../active';
import { isCrossover, type CrossoverDesign } from '../crossover-design';
import { crossoverFigures } from '../readings';
import { solveCrossover } from '../solve';
import { USUAL_WIRE } from '../stage-of-slot';

/** How much is spent on the parts of a passive network. */
export interface Tier {
  id: string;
  words: string;
  about: string;
  /** Wire of a coil, metres, and what it is wound on, by its inductance. */
  coil(henries: number): { wireMetres: number; core: CoreName };
  capacitor: { ohms: number; each: number; aFarad: number };
  resistorEach: number;
}

/** Above this coils of air take much copper, henries. */
const LARGE = 1.5e-3;

/** Prices are of no shop: about what parts of a kind cost against each other. */
export const TIERS: readonly Tier[] = [
  {
    id: 'spare',
    words: 'spare',
    about: 'thin wire, large coils on steel; bipolar electrolytic capacitors',
    coil: (henries) =>
      henries > LARGE
        ? { wireMetres: 0.8e-3, core: 'steel' }
        : { wireMetres: 0.71e-3, core: 'air' },
    capacitor: { ohms: 0.25, each: 0.3, aFarad: 0.05e6 },
    resistorEach: 0.4,
  },
  {
    id: 'fair',
    words: 'fair',
    about: 'air coils of usual wire, film capacitors',
    coil: (henries) => ({ wireMetres: henries > LARGE ? 1.25e-3 : 1e-3, core: 'air' }),
    capacitor: { ohms: 0.02, each: 0.8, aFarad: 0.35e6 },
    resistorEach: 0.9,
  },
  {
    id: 'fine',
    words: 'fine',
    about: 'air coils of thick wire, thick film capacitors',
    coil: (henries) => ({ wireMetres: henries > LARGE ? 2e-3 : 1.4e-3, core: 'air' }),
    capacitor: { ohms: 0.008, each: 2, aFarad: 0.9e6 },
    resistorEach: 1.8,
  },
];

/** What a capacitor or a resistor of a tier costs about; nothing of what is told by how it is made. */
const priceIn = (tier: Tier, kind: string, value: number): number | undefined =>
  kind === 'capacitor'
    ? tier.capacitor.each + tier.capacitor.aFarad * value
    : kind === 'resistor'
      ? tier.resistorEach
      : undefined;

/** The same of the tier in the middle. */
export const fairPrice = (kind: string, value: number): number | undefined =>
  priceIn(TIERS[1], kind, value);

/** What a tier comes to. */
export interface TierResult {
  id: string;
  cost: number;
  copperKilograms: number;
  /** The largest resistance of a coil, and how flat the sum is then. */
  mostOhms: number;
  withinDb: number;
  leastOhms: number;
}

/** A crossover with the parts of a tier; values stay. */
export function withTier<D extends Pick<Sheet, 'ways'>>(design: D, tier: Tier): D {
  return {
    ...design,
    ways: design.ways.map((way) => ({
      ...way,
      stages: way.stages.map((stage) => {
        const kinds = new Map(drawnParts(stage).map((p) => [p.id, p.kind]));
        const built = (id: string, part: StagePart): StagePart => {
          const kind = kinds.get(id);
          if (kind === 'inductor') return { ...part, wound: tier.coil(part.value!) };
          if (kind === 'capacitor') return { ...part, losses: { ohms: tier.capacitor.ohms } };
          return part;
        };
        return {
          ...stage,
          parts: Object.fromEntries(
            Object.entries(stage.parts).map(([id, part]) => [id, built(id, part)]),
          ),
        };
      }),
    })),
  };
}

/** What each tier costs, and what it does to the sum: nothing of a crossover of op-amps. */
export function tiersPicture(sheet: Sheet): { tiers: TierResult[]; problem: string | null } {
  if (!isCrossover(sheet) || hasAmplifiers(sheet)) return { tiers: [], problem: null };
  try {
    return { tiers: TIERS.map((tier) => resultOf(tier, withTier(sheet, tier))), problem: null };
  } catch (error) {
    return { tiers: [], problem: messageOf(error) };
  }
}

function resultOf(tier: Tier, design: Sheet & CrossoverDesign): TierResult {
  let [cost, copperKilograms, mostOhms] = [0, 0, 0];
  for (const { stages } of design.ways)
    for (const stage of stages.filter((s) => !s.bypassed))
      for (const { id, kind } of drawnParts(stage)) {
        const { value, wound } = stage.parts[id] ?? {};
        if (value === undefined) continue;
        if (kind === 'inductor') {
          const coil = windCoil(value, wound?.wireMetres ?? USUAL_WIRE, wound?.core);
          cost += coil.price;
          copperKilograms += coil.copperKilograms;
          mostOhms = Math.max(mostOhms, coil.dcrOhms);
        } else cost += priceIn(tier, kind, value) ?? tier.resistorEach;
      }
  const speaker = solveCrossover(design, 'true', `${design.id} ${tier.id}`);
  const figures = crossoverFigures(speaker, design);
  return {
    id: tier.id,
    cost,
    copperKilograms,
    mostOhms,
    withinDb: figures.sum!.value,
    leastOhms: figures.impedance!.value,
  };
}
