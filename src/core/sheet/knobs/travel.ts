import { trackPart } from '@/core/circuit/devices/potentiometer';
import { taperOf } from '@/core/parts/kinds/potentiometer';
import { movedTo } from '../controls';
import type { Control, Sheet, Stage } from '../schema';
import { trackModelOf, type Taper } from './make-knob';

export const controlOf = ({ controls }: Pick<Sheet, 'controls'>, id: string): Control | undefined =>
  controls.find((c) => c.id === id);

/** A sheet with one of its controls at a place of its travel. */
export const turnedTo = (sheet: Sheet, id: string, at: number): Sheet => ({
  ...sheet,
  controls: sheet.controls.map((c) => (c.id === id ? { ...c, at } : c)),
});

/** The tracks that a control turns, each with its stage. */
export function tracksOf(
  sheet: Pick<Sheet, 'ways'>,
  { moves }: Control,
): { stage: Stage; part: string }[] {
  return moves.flatMap(({ stage: id, part, quantity, way }) => {
    const own = sheet.ways.find((w) => w.id === (way ?? sheet.ways[0].id));
    const stage = own?.stages.find((s) => s.id === id);
    return stage && quantity === 'turn' && part in stage.parts ? [{ stage, part }] : [];
  });
}

/** A sheet whose control turns tracks of another taper. */
export function withTaper<S extends Pick<Sheet, 'ways'>>(
  sheet: S,
  control: Control,
  taper: Taper,
): S {
  const tracks = tracksOf(sheet, control);
  return {
    ...sheet,
    ways: sheet.ways.map((way) => ({
      ...way,
      stages: way.stages.map((stage) => {
        const own = tracks.filter((t) => t.stage === stage);
        if (own.length === 0) return stage;
        const parts = { ...stage.parts };
        for (const { part } of own) parts[part] = { ...parts[part], model: trackModelOf(taper) };
        return { ...stage, parts };
      }),
    })),
  };
}

/** What the first track of a control has between its first end and its wiper; null without one. */
export function ohmsAt(sheet: Sheet, control: Control, at: number): number | null {
  const [track] = tracksOf(sheet, control);
  const move = control.moves.find((m) => m.part === track?.part && m.stage === track.stage.id);
  if (!track || !move) return null;
  const { value = 0, more, model } = track.stage.parts[track.part];
  const place = { taper: taperOf(model?.model), turn: movedTo(move, at) };
  return Math.max(value * trackPart({ ...place, mismatch: more?.mismatch ?? 0 }).part, 0);
}
