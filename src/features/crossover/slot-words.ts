import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { printPart } from '@/core/parts/quantities';
import type { Stage } from '@/core/sheet/schema';
import { quantityOfPart, stageName } from '@/core/sheet/stage';
import { slotKindOf } from '@/core/slots';
import type { SlotPrint } from '@/core/slots/slot-kind';

/** How slots print their numbers. */
export const slotPrint = (mark: DecimalMark): SlotPrint => ({
  hz: (x) => formatQuantity(x, 'hertz', { unit: true, mark, digits: 3 }),
  ohms: (x) => formatQuantity(x, 'ohms', { unit: true, mark, digits: 3 }),
  db: (x) => `${formatFixed(x, 1, mark)} dB`,
});

export const slotName = (stage: Stage, mark: DecimalMark): string =>
  stage.slot ? slotKindOf(stage.slot).name(stage.slot, slotPrint(mark)) : stageName(stage);

/** The values of a slot in a few words, as they stand in the network. */
export const slotValues = (stage: Stage, mark: DecimalMark): string =>
  Object.entries(stage.parts)
    .flatMap(([part, { value }]) => {
      const quantity = value === undefined ? undefined : quantityOfPart(stage, part);
      return quantity ? [printPart(quantity, value!, mark)] : [];
    })
    .join(' · ');
