import { trimOf } from '@/core/crossover/active';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { printPart } from '@/core/parts/quantities';
import type { Stage } from '@/core/sheet/schema';
import { designedAs, quantityOfPart, stageName } from '@/core/sheet/stage';
import { slotKindOf } from '@/core/slots';
import type { SlotPrint } from '@/core/slots/slot-kind';

/** How slots print their numbers. */
export const slotPrint = (mark: DecimalMark): SlotPrint => ({
  hz: (x) => formatQuantity(x, 'hertz', { unit: true, mark, digits: 3 }),
  ohms: (x) => formatQuantity(x, 'ohms', { unit: true, mark, digits: 3 }),
  db: (x) => `${formatFixed(x, 1, mark)} dB`,
});

export const slotName = (stage: Stage, mark: DecimalMark): string =>
  stage.slot
    ? slotKindOf(stage.slot).name(stage.slot, slotPrint(mark))
    : activeName(stage, slotPrint(mark));

/** A stage with op-amps by what it does. */
function activeName(stage: Stage, { hz, db }: SlotPrint): string {
  const { target } = stage;
  const topology = designedAs(stage);
  if (stage.name !== undefined || !topology || !target) return stageName(stage);
  const decibels = (ratio: number) => db(20 * Math.log10(ratio)).replace('-', '−');
  if (trimOf(stage) > 0) return `Trim −${db(trimOf(stage))}`;
  if (topology.kind === 'gain')
    return target.gain ? `${topology.short} ${decibels(Math.abs(target.gain))}` : topology.short;
  const lift = target.boost === undefined ? '' : ` ${decibels(target.boost)}`;
  return `${topology.short} ${hz(target.f0Hz)}${lift}`;
}

/** The values of a slot in a few words, as they stand in the network. */
export const slotValues = (stage: Stage, mark: DecimalMark): string =>
  stage.slot ? partValues(stage, mark) : activeFigures(stage, mark);

/** What a stage with op-amps is designed for beside its frequency; its values stand in the drawing. */
function activeFigures({ target, topology }: Stage, mark: DecimalMark): string {
  if (target?.q !== undefined) return `Q ${formatFixed(target.q, 2, mark)}`;
  if (topology === 'all-pass-first' && target)
    return `delays ${formatFixed(1e6 / (Math.PI * target.f0Hz), 0, mark)} µs`;
  return 'op-amp';
}

const partValues = (stage: Stage, mark: DecimalMark): string =>
  Object.entries(stage.parts)
    .flatMap(([part, { value }]) => {
      const quantity = value === undefined ? undefined : quantityOfPart(stage, part);
      return quantity ? [printPart(quantity, value!, mark)] : [];
    })
    .join(' · ');
