import { makeSheet, type NewSheet } from '@/core/sheet/make';
import type { Sheet } from '@/core/sheet/schema';
import { channelAsk, designBank } from './bank';
import { bankSchema, type Bank } from '@/core/sheet/bank-schema';
import { channelBands } from './widths';

export interface NewBank extends Omit<NewSheet, 'ask'> {
  centresHz: readonly number[];
  stages?: number;
  overlapDb?: number;
}

/** A new bank, its channels designed from centres and overlap. */
export function makeBank({ centresHz, stages = 2, overlapDb = 3, ...rest }: NewBank): Sheet {
  const bank: Bank = bankSchema.parse({
    overlapDb,
    channels: centresHz.map((centreHz, i) => ({ id: `c${i + 1}`, centreHz, stages })),
  });
  const sheet = makeSheet({
    ...rest,
    ask: channelAsk(bank.channels[0], channelBands(bank)[0]),
    readings: [],
  });
  return {
    ...sheet,
    bank,
    ways: designBank(bank, sheet.parts, sheet.ways[0]),
    view: { ...sheet.view, fromHz: Math.min(...centresHz) / 4, toHz: Math.max(...centresHz) * 4 },
  };
}
