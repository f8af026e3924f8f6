import { ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import { realValues } from '@/core/sheet/real-values';
import { refit } from '@/core/sheet/make';
import { moverOf, placeFor } from '@/core/sheet/controls';
import { exactValues } from '@/core/sheet/exact';
import { designedAs, quantityOfPart, withValue } from '@/core/sheet/stage';
import type { Deviations, PartChoices, StagePart, Supply } from '@/core/sheet/schema';
import { quoted } from '@/core/text';
import { doneBy, edit } from '@/store/sheet-session';
import { withStage } from './within';

/** A value of a part; where a control moves it, the control is set to where it has that value. */
export function setValue(stageId: string, part: string, value: number, group?: string): void {
  if (!(value > 0))
    throw new ReedError(
      'range',
      `${part} must be greater than zero: no part has the value ${value}.`,
    );
  edit((c) => {
    const stage = c.ways.flatMap((w) => w.stages).find((s) => s.id === stageId);
    const mover = stage && moverOf(c.controls, stage, part);
    if (!mover) return withStage(c, stageId, (s) => withValue(s, part, value));
    const { control, move } = mover;
    const at = placeFor(control, move, value);
    if (at === undefined) {
      const words = (x: number) => inWords(x, quantityOfPart(stage, part)!.quantity);
      throw new ReedError(
        'range',
        `${quoted(control.name)} moves ${part}, from ${words(move.from)} to ${words(move.to)}, and never to ${words(value)}: remove it first.`,
      );
    }
    return { controls: c.controls.map((k) => (k.id === control.id ? { ...k, at } : k)) };
  }, group);
}

/** Take a value that a reading was solved for. */
export const setSolved = (stageId: string, part: string, value: number): void =>
  doneBy('Solved for', () =>
    edit((c) => withStage(c, stageId, (s) => withValue(s, part, value, 'solved'))),
  );

/** Put a part back to the nearest real value, or to the exact one. */
export function resetValue(stageId: string, part: string, to: 'exact' | 'nearest'): void {
  edit((c) =>
    withStage(c, stageId, (s) => {
      const exact = exactValues(s);
      const topology = designedAs(s);
      if (!exact || !topology || !(part in exact)) return s;
      const value = to === 'exact' ? exact[part] : realValues(topology, exact, c.parts)[part];
      return withValue(s, part, value, 'fit');
    }),
  );
}

/** What one part is: a device or op-amp by its name; nothing for what is usual. */
export function setModel(stageId: string, part: string, model: StagePart['model']): void {
  edit((c) =>
    withStage(c, stageId, (s) => {
      const own = { ...(s.parts[part] ?? { chosen: 'hand' as const }) };
      if (model) own.model = structuredClone(model);
      else delete own.model;
      return { ...s, parts: { ...s.parts, [part]: own } };
    }),
  );
}

/** How one part may be made up when parts are fitted; nothing for as all of them. */
export function setMaking(stageId: string, part: string, may: StagePart['may']): void {
  edit((c) =>
    withStage(c, stageId, (s) => {
      const own = { ...s.parts[part], chosen: 'fit' as const };
      if (may) own.may = may;
      else delete own.may;
      return { ...s, parts: { ...s.parts, [part]: own } };
    }),
  );
}

/** Change where parts come from; every value is chosen again. */
export function changeParts(change: Partial<PartChoices>): void {
  edit((c) => {
    const parts = { ...c.parts, ...change };
    const sameSeries = (['resistors', 'capacitors', 'inductors'] as const).every(
      (kind) => parts[kind] === c.parts[kind],
    );
    return { parts, ...(sameSeries ? {} : { ways: refit(c.ways, parts) }) };
  });
}

/** Change what feeds the op-amps. */
export function changeSupply(supply: Supply): void {
  edit((c) => ({ parts: { ...c.parts, supply } }), 'supply');
}

/** Change how far parts are taken to be off. */
export function changeDeviations(deviations: Deviations): void {
  edit((c) => ({ parts: { ...c.parts, deviations } }), 'deviations');
}

export function fitAgain(): void {
  edit((c) => ({ ways: refit(c.ways, c.parts) }));
}
