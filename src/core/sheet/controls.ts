import { THERMAL_VOLTS } from '@/core/constants';
import { along } from '@/core/numeric/along';
import { lastWhere } from '@/core/numeric/root';
import { convertedOctaves } from '@/core/synth/converter';
import type { PartData } from '@/core/topologies/instantiate';
import { quantityOfPart } from './stage';
import type { Control, SheetDesign, Stage, Way } from './schema';

type Move = Control['moves'][number];

/** The quantity that a control sets where it stands, or where what drives it puts it. */
export function movedTo({ from, to, law, table }: Move, at: number): number {
  if (law !== 'by table') return along(from, to, at, law === 'by ratio');
  const points = [...(table ?? [])].sort((a, b) => a.at - b.at);
  const places = [{ at: 0, value: from }, ...points, { at: 1, value: to }];
  const next = Math.max(
    1,
    places.findIndex((p, k) => k === places.length - 1 || p.at >= at),
  );
  const [a, b] = [places[next - 1], places[next]];
  return b.at === a.at ? b.value : along(a.value, b.value, (at - a.at) / (b.at - a.at), false);
}

/** Whether an exponential converter can drive a control: a voltage that moves currents by ratio. */
export const isConverted = ({ is, moves }: Pick<Control, 'is' | 'moves'>): boolean =>
  is === 'volts' &&
  moves.length > 0 &&
  moves.every((m) => m.law === 'by ratio' && m.from * m.to > 0 && isCurrent(m));

/** Amperes of a converter’s output for one of a quantity: a transconductance takes 2 VT times as many. */
const AMPS: Readonly<Record<string, number>> = {
  biasAmps: 1,
  dc: 1,
  siemens: 2 * THERMAL_VOLTS,
};
const isCurrent = ({ quantity }: Move): boolean => quantity in AMPS;

/** How many octaves a control by ratio spans. */
export const octavesOf = ({ moves: [{ from, to }] }: Pick<Control, 'moves'>): number =>
  Math.log2(to / from);

/**
 * The place of its travel that a control comes to: where it stands, or where its exponential converter
 * puts it, which is in balance in the middle of the travel. May lie somewhat outside 0 to 1.
 */
export function placeOf(control: Control, kelvin?: number): number {
  const { at, converter, moves } = control;
  if (!converter || !isConverted(control)) return at;
  const total = octavesOf(control);
  const balanceAmps = moves.reduce(
    (sum, { from, to, quantity }) => sum + AMPS[quantity] * Math.sqrt(from * to),
    0,
  );
  const octaves = (at - MIDDLE) * total;
  return MIDDLE + convertedOctaves(converter, { octaves, balanceAmps, kelvin }) / total;
}

const MIDDLE = 0.5;

/** A control that is driven as it stands. */
export const withoutConverter = ({ converter: _, ...control }: Control): Control => control;

/** Whether a control sets the value of a part. */
export const isMoved = (controls: readonly Control[], stage: Stage, part: string): boolean =>
  moverOf(controls, stage, part) !== undefined;

/** The control that sets the value of a part, and how. */
export function moverOf(
  controls: readonly Control[],
  stage: Stage,
  part: string,
): { control: Control; move: Move } | undefined {
  const main = quantityOfPart(stage, part)?.name;
  for (const control of controls)
    for (const move of control.moves)
      if (move.stage === stage.id && move.part === part && move.quantity === main)
        return { control, move };
  return undefined;
}

/** Controls of a sheet that a stage has left: what moved nothing else goes with it. */
export const leftBy = (controls: readonly Control[], stage: string): Control[] =>
  controls.flatMap((control) => {
    const moves = control.moves.filter((m) => m.stage !== stage);
    if (moves.length === control.moves.length) return [control];
    return moves.length > 0 ? [{ ...control, moves }] : [];
  });

/** Controls of a sheet that move the copy of a stage as they move the stage. */
export const withCopyMoved = (
  controls: readonly Control[],
  stage: string,
  copy: string,
): Control[] =>
  controls.map((control) => ({
    ...control,
    moves: [
      ...control.moves,
      ...control.moves.filter((m) => m.stage === stage).map((m) => ({ ...m, stage: copy })),
    ],
  }));

/**
 * The place of its travel at which a control sets a quantity to a value, found between its ends.
 *
 * @returns nothing where it never does
 */
export function placeFor(control: Control, move: Move, value: number): number | undefined {
  const at = (place: number) => movedTo(move, placeOf({ ...control, at: place })) - value;
  const side = Math.sign(at(0));
  if (side === 0) return 0;
  if (Math.sign(at(1)) === side) return undefined;
  return lastWhere((place) => Math.sign(at(place)) === side, 0, 1);
}

/** What the controls of a sheet set in one stage: quantities by part. */
export function movedParts(
  { controls, ways }: Pick<SheetDesign, 'controls' | 'ways'>,
  way: Way,
  { id }: Stage,
): Map<string, Record<string, number>> {
  const found = new Map<string, Record<string, number>>();
  for (const control of controls)
    for (const move of control.moves) {
      if (move.stage !== id || (move.way ?? ways[0].id) !== way.id) continue;
      const value = movedTo(move, placeOf(control));
      found.set(move.part, { ...found.get(move.part), [move.quantity]: value });
    }
  return found;
}

/** A part with the quantities that a control sets. */
export function movedData(
  data: PartData,
  moved: Record<string, number> | undefined,
  main: string | undefined,
): PartData {
  if (!moved) return data;
  const { [main ?? '']: value, ...more } = moved;
  return {
    ...data,
    ...(value === undefined ? {} : { value }),
    ...(Object.keys(more).length > 0 ? { more: { ...data.more, ...more } } : {}),
  };
}

/** Several tracks that one knob turns. */
export interface Shaft {
  control: string;
  tracks: number;
}

/** The shaft that a part of a sheet stands on with others, if it does. */
export function shaftsOf({
  controls,
  ways,
}: Pick<SheetDesign, 'controls' | 'ways'>): (
  way: Way,
  stage: Stage,
  part: string,
) => Shaft | undefined {
  const key = (way: string, stage: string, part: string) => JSON.stringify([way, stage, part]);
  const shafts = new Map<string, Shaft>();
  for (const { id: control, moves } of controls)
    for (const { way, stage, part } of moves.length > 1 ? moves : [])
      shafts.set(key(way ?? ways[0].id, stage, part), { control, tracks: moves.length });
  return (way, stage, part) => shafts.get(key(way.id, stage.id, part));
}
