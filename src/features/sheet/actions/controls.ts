import { ReedError } from '@/core/errors';
import { partKindOf } from '@/core/parts';
import { withKnob, type KnobPlan, type Taper } from '@/core/sheet/knobs/make-knob';
import { withStretch, type Stretched } from '@/core/sheet/knobs/stretch';
import { controlOf, withTaper } from '@/core/sheet/knobs/travel';
import type { Control, Sheet } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { newId } from '@/store/ids';
import { edit } from '@/store/sheet-session';
import { WAY, withStage } from './within';

/** A shaft that turns a potentiometer. */
export function addControl(stageId: string, part: string, name: string): void {
  edit((c) => {
    const stage = c.ways[WAY].stages.find((s) => s.id === stageId);
    const kind = stage && drawnParts(stage).find((p) => p.id === part)?.kind;
    const quantity = kind && partKindOf(kind).quantities.find((q) => q.name === 'turn');
    if (!stage || !quantity)
      throw new ReedError('range', 'Only a potentiometer has a shaft to turn.');
    const at = stage.parts[part]?.more?.turn ?? quantity.usual;
    const law = 'even' as const;
    const moves = [{ stage: stageId, part, quantity: 'turn', from: 0, to: 1, law }];
    return { controls: [...c.controls, { id: newId('c'), name, is: 'turn', at, moves }] };
  });
}

/** A knob in the place of resistors of a stage, in one step. */
export function addKnob(stageId: string, plan: KnobPlan, name: string): string {
  const id = newId('c');
  edit((c) => {
    const stage = c.ways[WAY].stages.find((s) => s.id === stageId);
    if (!stage) throw new ReedError('range', 'The stage is gone.');
    const made = withKnob(stage, plan);
    const control = { id, name, is: 'turn' as const, at: made.at, moves: made.moves };
    return {
      ...withStage(c, stageId, () => made.stage),
      controls: [...c.controls, control],
    };
  });
  return id;
}

export function changeControl(
  id: string,
  change: (control: Control) => Control,
  group?: string,
): void {
  edit((c) => ({ controls: c.controls.map((k) => (k.id === id ? change(k) : k)) }), group);
}

/** The key that turns a knob; nothing for none. */
export function setControlKey(id: string, key: string | undefined): void {
  changeControl(id, (control) => {
    const rest = { ...control };
    delete rest.key;
    return key === undefined ? rest : { ...rest, key };
  });
}

/** The knob of a MIDI controller that moves a control; nothing for none. */
export function setControlMidi(id: string, midi: number | undefined): void {
  changeControl(id, ({ midi: _, ...control }) =>
    midi === undefined ? control : { ...control, midi },
  );
}

/** Turn a knob by a part of its travel, as far as it goes. */
export function turnControl(id: string, by: number): void {
  const turned = (at: number) => Math.min(1, Math.max(0, Number((at + by).toFixed(4))));
  changeControl(id, (control) => ({ ...control, at: turned(control.at) }), `control ${id}`);
}

/** Tracks of another taper for a knob. */
export function setTaper(id: string, taper: Taper): void {
  edit((c) => {
    const control = controlOf(c, id);
    return control ? { ways: withTaper(c, control, taper).ways } : {};
  });
}

/** Give a knob the track and the resistor in line that span a range. */
export function stretchKnob(
  sheet: Sheet,
  id: string,
  reach: NonNullable<Control['reach']>,
  found: Stretched,
): void {
  edit(() => withStretch(sheet, id, reach, found));
}

export const setControl = (id: string, at: number): void =>
  changeControl(id, (control) => ({ ...control, at }), `control ${id}`);

export function removeControl(id: string): void {
  edit((c) => ({ controls: c.controls.filter((k) => k.id !== id) }));
}
