import { netsOf, type Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { Take } from '@/core/library/take';
import type { StockEntry } from '@/core/library/stock';
import { isValued, withPart, withPartValue } from '@/core/mistakes/mistake';
import { withMeter } from './meters';
import { outNet, prefixOf } from '@/core/sheet/nets';
import { namesInCircuit, placedWays, SOURCE_OHMS, waysTogether } from '@/core/sheet/path-circuit';
import type { Sheet, Way } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { rulesOfSheet } from '@/core/sheet/spread-sheet';
import { DEVIATING_KINDS, type Rules } from '@/core/spread/rules';
import { drivenByCurrent, OHMS_KNOWN_DB } from '@/core/suspects/impedance';

export type SheetBoard = Sheet['boards'][number];

/** A board of a sheet as a circuit, with what is known of each part. */
export interface BoardCircuit {
  circuit: Circuit;
  probe: string;
  /** How far each part may be off. */
  rules: Rules;
  /** Parts that are not of the board: what stands at both ends of it. */
  fixed: ReadonlySet<string>;
  /** How well the level is known that it is measured at, dB; Infinity where nobody knows it. */
  gainSdDb: number;
}

/** A value that was measured is off by what a meter is. */
const MEASURED = 0.005;

/** Where in a sheet a part belongs. */
export interface PartPlace {
  way: string;
  stage: string;
  part: string;
}

/** How a value of a board is named. */
export const keyOf = ({ way, stage, part }: PartPlace): string => `${way}/${stage}/${part}`;

/** How a take is taken: what it is of, and with what. */
export type TakenHow = Pick<Take, 'of' | 'meter'>;

/**
 * The first way of a sheet as a board of it is, and as it is measured: values that were measured on it
 * in the place of those chosen.
 *
 * @param how what is measured of it; the level at its output, with nothing that it feels, where nothing is said
 * @throws ReedError where the way has no circuit, or no such net
 */
export function boardCircuit(
  sheet: Sheet,
  board: SheetBoard | undefined,
  drawer: readonly StockEntry[] = [],
  { of, meter }: TakenHow = {},
): BoardCircuit {
  const isImpedance = of?.is === 'impedance';
  const ways = isImpedance ? driven(sheet) : waysTogether(sheet, 0, 'built');
  let { circuit } = placedWays(sheet, ways, 'built');
  const known: Record<string, Rules[string]> = {};
  const own = new Set<string>();
  const there = new Set([...DEVIATING_KINDS, ...circuit.parts.map((p) => p.id)]);
  for (const w of ways) {
    const way = rulesOfSheet(sheet, w, drawer);
    // What shares the source with it is told as well, and need not stand in this circuit.
    for (const [name, rule] of Object.entries(way.rules)) if (there.has(name)) known[name] = rule;
    for (const id of way.own) own.add(id);
  }
  for (const place of placesIn(sheet, ways)) {
    const value = board?.values[keyOf(place)];
    const part = circuit.parts.find((p) => p.id === place.name);
    if (value === undefined || !part || !isValued(part)) continue;
    circuit = withPart(circuit, withPartValue(part, value));
    known[part.id] = { ...known[part.id], tolerance: MEASURED };
  }
  let probe = of?.is === 'level' && of.net !== undefined ? of.net : outNet(sheet);
  if (isImpedance) ({ circuit, probe } = drivenByCurrent(circuit, SOURCE_OHMS));
  else if (!netsOf(circuit).includes(probe))
    throw new ReedError(
      'circuit',
      `The take is of a net “${probe}” that this sheet no longer has: take the change back, or take it anew.`,
    );
  // What it is measured with is there when it is measured, and nobody’s fault.
  if (meter && !isImpedance) circuit = withMeter(circuit, probe, meter);
  const fixed = new Set(circuit.parts.map((p) => p.id).filter((id) => !own.has(id)));
  return {
    circuit,
    probe,
    rules: known,
    fixed,
    gainSdDb: isImpedance ? OHMS_KNOWN_DB : Infinity,
  };
}

/** What the source drives at once: all ways of a crossover, and one channel of a bank, measured by itself. */
const driven = (sheet: Sheet): number[] =>
  sheet.bank ? waysTogether(sheet, 0, 'ideal') : [...sheet.ways.keys()];

/** Where the parts of some ways belong, and what they are called in the circuit. */
function* placesIn(sheet: Sheet, ways: Iterable<number>): Generator<PartPlace & { name: string }> {
  for (const w of ways) {
    const way = sheet.ways[w];
    const nameOf = namesInCircuit(sheet, w);
    for (const stage of way.stages)
      for (const { id } of drawnParts(stage))
        yield { way: way.id, stage: stage.id, part: id, name: nameOf(stage, id) };
  }
}

/** The board by itself: without what stands at its ends. */
export const bareCircuit = ({
  circuit,
  fixed,
}: Pick<BoardCircuit, 'circuit' | 'fixed'>): Circuit => ({
  ...circuit,
  parts: circuit.parts.filter(
    (p) => !fixed.has(p.id) || p.kind === 'voltage-source' || p.kind === 'op-amp',
  ),
});

/** To what of the sheet a part of its circuit belongs; nothing for what stands at its ends. */
export function placeOfPart(sheet: Sheet, wanted: string): PartPlace | null {
  for (const { name, ...place } of placesIn(sheet, sheet.ways.keys()))
    if (name === wanted) return place;
  return null;
}

/** What a part whose value is kept under a key is called in the circuit; the key itself where it is gone. */
export function nameOfValue(sheet: Sheet, key: string): string {
  for (const place of placesIn(sheet, sheet.ways.keys()))
    if (keyOf(place) === key) return place.name;
  return key;
}

/** Of a part or a net: the way that it is of, where that is another than the first. */
export const otherWayOf = (sheet: Pick<Sheet, 'ways'>, name: string): Way | undefined =>
  sheet.ways.find((_, w) => w > 0 && name.startsWith(prefixOf(sheet, w)));

/** What a part of another way than the first is called in words: “R1 of Woofer”. */
export function shownName(sheet: Pick<Sheet, 'ways'>, name: string): string {
  const way = otherWayOf(sheet, name);
  return way ? `${name.slice(way.id.length + 1)} of ${way.name || way.id}` : name;
}
