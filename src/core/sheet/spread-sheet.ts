import type { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import type { StockEntry } from '@/core/library/stock';
import { explored, type Band, type Landmark } from '@/core/response/landmarks';
import type { Deviating, Shape } from '@/core/spread/deviations';
import type { Rules, Rule } from '@/core/spread/rules';
import { deviatingBy } from '@/core/spread/rules';
import { Spread, type SpreadFrames } from '@/core/spread/spread';
import { shaftsOf } from './controls';
import { outNet, outputNet } from './nets';
import { namesInCircuit, pathCircuit, waysTogether } from './path-circuit';
import { readerOptions } from './reader-options';
import type { Sheet, StagePart } from './schema';
import { drawnParts } from './stage';
import { USUAL_DEVIATIONS } from './usual-deviations';
import { meets } from './verdict';

/** Which boards are meant. */
export interface BoardsOfSheetOptions {
  way?: number;
  /** Two parts that are off together, as a matched pair is. */
  tied?: readonly [string, string];
  /** Parts of the drawer that the sheet refers to: what they are known to be off by. */
  drawer?: readonly StockEntry[];
}

export interface SheetSpreadOptions extends BoardsOfSheetOptions {
  boards: number;
  seed: number;
  /** As of `SpreadRequest`. */
  first?: number;
  frames?: SpreadFrames;
}

/** The band is drawn through so many points a decade, and closer where the curve bends. */
const PER_DECADE = 16;
/** As good as as many. */
const MOST_OF = 0.8;

/**
 * A way of a sheet as it is built, with what of it is off, by how much.
 *
 * @throws ReedError where the way has no circuit
 */
export function boardsOfSheet(
  sheet: Sheet,
  { way = 0, tied, drawer = [] }: BoardsOfSheetOptions,
): { circuit: Circuit; deviating: (analysis: AcAnalysis) => Deviating[]; kelvins: number } {
  const known = rulesOfSheet(sheet, way, drawer);
  return {
    circuit: pathCircuit(sheet, way, 'built'),
    deviating: (analysis) =>
      deviatingBy(analysis, known.rules)
        .filter(({ part }) => known.own.has(part))
        .map((own) => (tied?.includes(own.part) ? { ...own, reel: 'matched' } : own)),
    kelvins: (sheet.parts.deviations ?? USUAL_DEVIATIONS).kelvins,
  };
}

/**
 * Many boards of a way of a sheet as it is built. What drives it and what it ends in are taken to be
 * as they are.
 *
 * @throws ReedError as solving the way
 */
export function spreadOfSheet(
  sheet: Sheet,
  { boards, seed, first, frames, ...which }: SheetSpreadOptions,
): Spread {
  const { way: index = 0 } = which;
  const probe = outNet(sheet, index);
  const options = readerOptions(sheet, index);
  return new Spread({
    ...boardsOfSheet(sheet, which),
    probe,
    seed,
    boards,
    ...(first === undefined ? {} : { first }),
    ...(frames ? { frames } : {}),
    levelsAt: bandAt(sheet.view, options.span, options.landmarks ?? []),
    phases: true,
    readings: sheet.readings.map(({ measure, wanted, at }) => ({
      measure,
      ...(at ? { net: outputNet(sheet, at, index)?.net ?? probe } : {}),
      ...(wanted ? { met: (value: number) => meets(wanted, value) } : {}),
    })),
    ...options,
  });
}

/**
 * Frequencies that the band is drawn through: those of the picture among those that readings are
 * looked for over, so that a board is solved at few beyond; of a narrow picture its own.
 */
function bandAt(view: Band, span: Band, landmarks: readonly Landmark[]): Float64Array {
  const own = explored(view, landmarks, PER_DECADE);
  const { fromHz, toHz } = view;
  const inside = explored(span, landmarks, PER_DECADE).filter((hz) => hz > fromHz && hz < toHz);
  return inside.length < MOST_OF * own.length ? own : Float64Array.from([fromHz, ...inside, toHz]);
}

/** Rules for the parts of a sheet’s circuit, and the parts that are its own. */
export function rulesOfSheet(
  sheet: Sheet,
  index: number,
  drawer: readonly StockEntry[],
): { rules: Rules; own: ReadonlySet<string> } {
  const deviations = sheet.parts.deviations ?? USUAL_DEVIATIONS;
  const { shape: lie, measured = {} } = deviations;
  const shape: Shape = { is: lie === 'uniform' ? 'uniform' : 'normal' };
  const ofKind = (tolerance: number, reel?: string): Rule => ({
    tolerance,
    shape,
    ...(reel !== undefined && deviations.oneReel ? { reel } : {}),
  });
  const rules: Record<string, Rule> = {
    resistor: ofKind(deviations.resistor, 'resistor'),
    capacitor: ofKind(deviations.capacitor, 'capacitor'),
    inductor: ofKind(deviations.inductor, 'inductor'),
    potentiometer: ofKind(deviations.potentiometer),
    'op-amp': ofKind(deviations.opAmp),
  };
  // What was measured of a kind goes before what is said of it.
  if (lie === 'measured')
    for (const [kind, pieces] of Object.entries(measured))
      if (pieces.length > 0) rules[kind] = { ...rules[kind], ...asMeasured(pieces) };
  const own = new Set<string>();
  const shaftOf = shaftsOf(sheet);
  const stock = new Map(drawer.map((entry) => [entry.id, entry]));
  for (const w of waysTogether(sheet, index, 'built')) {
    const way = sheet.ways[w];
    const nameOf = namesInCircuit(sheet, w);
    for (const stage of way.stages)
      for (const { id, kind } of drawnParts(stage)) {
        const name = nameOf(stage, id);
        own.add(name);
        const part = stage.parts[id] as StagePart | undefined;
        const entry = part?.stock === undefined ? undefined : stock.get(part.stock);
        const usual = rules[kind] as Rule | undefined;
        if (!part || !usual) continue;
        const told = part.tolerance ?? entry?.tolerance;
        const together = pairing(part);
        const off: Rule =
          part.made?.how === 'trimmer'
            ? trimmedRule(part, shape)
            : told !== undefined && usual.shape?.is === 'measured'
              ? { ...usual, shape, tolerance: told * together }
              : pairedRule({ ...usual, tolerance: told ?? usual.tolerance }, together);
        const { ppmPerKelvin } = entry ?? {};
        const shaft = kind === 'potentiometer' ? shaftOf(way, stage, id) : undefined;
        rules[name] = {
          ...off,
          // Tracks on one shaft are of one make.
          ...(shaft === undefined ? {} : { reel: `shaft ${shaft.control}` }),
          ...(ppmPerKelvin === undefined ? {} : { perKelvin: ppmPerKelvin * 1e-6 }),
        };
      }
  }
  return { rules, own };
}

/** Pieces that were measured, each as likely as the others; none is further off than the furthest. */
const asMeasured = (deviations: readonly number[]): Pick<Rule, 'tolerance' | 'shape'> => ({
  tolerance: Math.max(...deviations.map(Math.abs)),
  shape: { is: 'measured', deviations },
});

/** The rule of two parts in the place of one: what they have in common stays, the rest is less. */
function pairedRule(rule: Rule, together: number): Rule {
  if (rule.shape?.is !== 'measured') return { ...rule, tolerance: rule.tolerance * together };
  const { deviations } = rule.shape;
  const mean = deviations.reduce((a, b) => a + b, 0) / deviations.length;
  return { ...rule, ...asMeasured(deviations.map((off) => mean + (off - mean) * together)) };
}

/** A trimmer is set by hand to within this part of its track. */
const SET_WITHIN = 0.01;

/** What was set to its value is off by what a hand can set, whatever its parts are off by. */
const trimmedRule = ({ made, value }: StagePart, shape: Shape): Rule => ({
  tolerance: (SET_WITHIN * made!.of[1]) / value!,
  shape,
});

/** Two parts that are off independently are together off by less: as the root of their squares. */
function pairing({ made }: StagePart): number {
  if (!made || made.how === 'trimmer') return 1;
  const [a, b] = made.of;
  return Math.hypot(a, b) / (a + b);
}
