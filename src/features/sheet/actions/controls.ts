import { ReedError } from '@/core/errors';
import { partKindOf } from '@/core/parts';
import { drawnParts } from '@/core/sheet/stage';
import { newId } from '@/store/ids';
import { edit } from '@/store/sheet-session';
import { WAY } from './within';

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

export function setControl(id: string, at: number): void {
  edit(
    (c) => ({ controls: c.controls.map((k) => (k.id === id ? { ...k, at } : k)) }),
    `control ${id}`,
  );
}

export function removeControl(id: string): void {
  edit((c) => ({ controls: c.controls.filter((k) => k.id !== id) }));
}
