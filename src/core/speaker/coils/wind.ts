import { ReedError } from '@/core/errors';
import type { Winding } from './coil';
import { selfInductance } from './self';

/** Copper at 20 °C: ohm metres, kg/m3. */
const COPPER_OHM_METRES = 1.724e-8;
const COPPER_DENSITY = 8960;
/** Enamelled round wire in layers: the side of the square that a turn takes, over the bare diameter. */
const PITCH = 1.08;

/** What a coil is wound on. A core multiplies its inductance and sets a limit to its current. */
export const CORES = {
  air: { words: 'air core', gain: 1 },
  /** A rod of ferrite as long as the winding, open at both ends. */
  ferrite: { words: 'ferrite rod', gain: 4, tesla: 0.3, perKilogram: 6 },
  /** A bobbin in a bar of stacked steel. */
  steel: { words: 'steel bar', gain: 9, tesla: 1.2, perKilogram: 4 },
} as const;
export type CoreName = keyof typeof CORES;
export const CORE_NAMES = Object.keys(CORES) as CoreName[];

/** A coil as it is wound. */
export interface WoundCoil extends Winding {
  wireMetres: number;
  core: CoreName;
  henries: number;
  /** Length of its wire, and what it resists and weighs. */
  lengthOfWireMetres: number;
  dcrOhms: number;
  copperKilograms: number;
  price: number;
  /** Amperes beyond which its inductance falls; absent with an air core, which has no such limit. */
  saturationAmps?: number;
}

/** Bare diameters of wire that a shop has, metres. */
export const WIRES = [
  0.5e-3, 0.71e-3, 0.8e-3, 1e-3, 1.25e-3, 1.4e-3, 1.8e-3, 2e-3, 2.5e-3,
] as const;

/**
 * A coil of least resistance for its copper: a square winding whose inner diameter is twice its
 * side (H. B. Brooks, "Design of Standards of Inductance", J. Res. Nat. Bureau of Standards 7, 1931).
 * Inductance goes with the square of the turns times the size, and the turns of a wire with the square
 * of the size, so that the fifth power of the size is settled.
 *
 * @throws ReedError `range` for a value or a wire that no coil is wound with
 */
export function windCoil(henries: number, wireMetres: number, core: CoreName = 'air'): WoundCoil {
  if (!(henries > 0) || !(wireMetres > 0) || !Number.isFinite(henries / wireMetres))
    throw new ReedError('range', 'A coil needs an inductance and a wire diameter above zero.');
  const { side, turns } = squareWinding(henries, wireMetres, core);
  if (turns < 3)
    throw new ReedError(
      'range',
      `A coil of so few turns (${turns.toPrecision(2)}) of so thick a wire is none: take a thinner one.`,
    );
  return finished(
    { innerMetres: 2 * side, outerMetres: 4 * side, lengthMetres: side, turns },
    henries,
    wireMetres,
    core,
  );
}

/** Side of the winding and turns, whether or not so few of them are a coil. */
function squareWinding(henries: number, wireMetres: number, core: CoreName) {
  const pitch = PITCH * wireMetres;
  const side = (((henries / CORES[core].gain) * pitch ** 4) / unitInductance()) ** 0.2;
  return { side, turns: (side / pitch) ** 2 };
}

/** What a coil of least resistance resists: `windCoil` for the question that every edit asks. */
export function woundOhms(henries: number, wireMetres: number, core: CoreName): number {
  const { side, turns } = squareWinding(henries, wireMetres, core);
  const length = turns * Math.PI * 3 * side;
  return (COPPER_OHM_METRES * length) / ((Math.PI * wireMetres * wireMetres) / 4);
}

let brooks: number | undefined;
/** Of one turn in a winding whose side is a metre. */
const unitInductance = () =>
  (brooks ??= selfInductance({ innerMetres: 2, outerMetres: 4, lengthMetres: 1, turns: 1 }));

/** A coil on a former of given size: as many turns as its inductance needs, layer on layer. */
export function windOnFormer(
  henries: number,
  wireMetres: number,
  former: { innerMetres: number; lengthMetres: number },
  core: CoreName = 'air',
): WoundCoil {
  const pitch = PITCH * wireMetres;
  const wound = (turns: number): Winding => ({
    ...former,
    turns,
    outerMetres: former.innerMetres + (2 * turns * pitch * pitch) / former.lengthMetres,
  });
  const wanted = henries / CORES[core].gain;
  // More turns are always more inductance: bisection on their logarithm.
  let [low, high] = [0, Math.log(1e5)];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (selfInductance(wound(Math.exp(middle))) < wanted) low = middle;
    else high = middle;
  }
  const winding = wound(Math.exp((low + high) / 2));
  return finished(winding, selfInductance(winding) * CORES[core].gain, wireMetres, core);
}

/** Coil copper and its making, per kilogram; and what any coil costs. */
const PER_KILOGRAM = 28;
const MAKING = 2.5;

function finished(
  winding: Winding,
  henries: number,
  wireMetres: number,
  core: CoreName,
): WoundCoil {
  const { innerMetres, outerMetres, lengthMetres, turns } = winding;
  const its = CORES[core];
  const lengthOfWireMetres = (turns * Math.PI * (innerMetres + outerMetres)) / 2;
  const area = (Math.PI * wireMetres * wireMetres) / 4;
  const copperKilograms = lengthOfWireMetres * area * COPPER_DENSITY;
  const price = MAKING + copperKilograms * PER_KILOGRAM;
  const wound = {
    ...winding,
    wireMetres,
    core,
    henries,
    lengthOfWireMetres,
    dcrOhms: (COPPER_OHM_METRES * lengthOfWireMetres) / area,
    copperKilograms,
  };
  if (!('tesla' in its)) return { ...wound, price };
  const bore = (Math.PI * innerMetres * innerMetres) / 4;
  return {
    ...wound,
    price: price + bore * lengthMetres * 6000 * its.perKilogram,
    // Flux through the core, L i = N B A.
    saturationAmps: (turns * its.tesla * bore) / henries,
  };
}
