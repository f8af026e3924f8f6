import type { Circuit } from '@/core/circuit/schema';
import type { StockEntry } from '@/core/library/stock';
import { isValued, withPart, withPartValue } from '@/core/mistakes/mistake';
import { withMeter, type Meter } from './meters';
import { outNet } from '@/core/sheet/nets';
import { namesInCircuit, pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { rulesOfSheet } from '@/core/sheet/spread-sheet';
import type { Rules } from '@/core/spread/rules';

export type SheetBoard = Sheet['boards'][number];

/** A board of a sheet as a circuit, with what is known of each part. */
export interface BoardCircuit {
  circuit: Circuit;
  probe: string;
  /** How far each part may be off. */
  rules: Rules;
  /** Parts that are not of the board: what stands at both ends of it. */
  fixed: ReadonlySet<string>;
}

/** A value that was measured is off by what a meter is. */
const MEASURED = 0.005;

/** How a value of a board is named: by way, stage and part. */
export const valueKey = (way: string, stage: string, part: string): string =>
  `${way}/${stage}/${part}`;

/**
 * The first way of a sheet as a board of it is: values that were measured on it in the place of those
 * chosen.
 *
 * @param meter what it is measured with at its output, where it feels that
 * @throws ReedError where the way has no circuit
 */
export function boardCircuit(
  sheet: Sheet,
  board: SheetBoard | undefined,
  drawer: readonly StockEntry[] = [],
  meter?: Meter,
): BoardCircuit {
  const { rules, own } = rulesOfSheet(sheet, 0, drawer);
  let circuit = pathCircuit(sheet, 0, 'built');
  const known: Record<string, Rules[string]> = { ...rules };
  const way = sheet.ways[0];
  const nameOf = namesInCircuit(sheet, 0);
  for (const stage of way.stages)
    for (const { id } of drawnParts(stage)) {
      const value = board?.values[valueKey(way.id, stage.id, id)];
      const part = circuit.parts.find((p) => p.id === nameOf(stage, id));
      if (value === undefined || !part || !isValued(part)) continue;
      circuit = withPart(circuit, withPartValue(part, value));
      known[part.id] = { ...known[part.id], tolerance: MEASURED };
    }
  const probe = outNet(sheet);
  // What it is measured with is there when it is measured, and nobody’s fault.
  if (meter) circuit = withMeter(circuit, probe, meter);
  const fixed = new Set(circuit.parts.map((p) => p.id).filter((id) => !own.has(id)));
  return { circuit, probe, rules: known, fixed };
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
export function placeOfPart(sheet: Sheet, name: string): { stage: string; part: string } | null {
  const nameOf = namesInCircuit(sheet, 0);
  for (const stage of sheet.ways[0].stages)
    for (const { id } of drawnParts(stage))
      if (nameOf(stage, id) === name) return { stage: stage.id, part: id };
  return null;
}

/** What a part whose value is kept under a key is called in the circuit; the key itself where it is gone. */
export function nameOfValue(sheet: Sheet, key: string): string {
  const way = sheet.ways[0];
  const nameOf = namesInCircuit(sheet, 0);
  for (const stage of way.stages)
    for (const { id } of drawnParts(stage))
      if (valueKey(way.id, stage.id, id) === key) return nameOf(stage, id);
  return key;
}
