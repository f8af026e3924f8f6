import { ReedError } from '@/core/errors';
import { designBank } from '@/core/bank/bank';
import { withKnownTable, type KnownTable } from '@/core/bank/known-table';
import type { Bank, Channel } from '@/core/sheet/bank-schema';
import { checkBank } from '@/core/sheet/gate';
import { edit } from '@/store/sheet-session';

/** Change the bank; every channel is designed anew, known parts keep their values. */
function changeBank(change: (bank: Bank) => Bank): void {
  edit((c) => {
    if (!c.bank) return {};
    const bank = change(c.bank);
    checkBank(bank);
    return { bank, ways: designBank(bank, c.parts, c.ways[0]) };
  });
}

export const setAlternate = (alternate: boolean): void => changeBank((b) => ({ ...b, alternate }));

export const setOverlap = (overlapDb: number): void => changeBank((b) => ({ ...b, overlapDb }));

export function changeChannel(id: string, change: Partial<Omit<Channel, 'id'>>): void {
  changeBank((b) => ({
    ...b,
    channels: b.channels.map((c) => (c.id === id ? { ...c, ...change } : c)),
  }));
}

/** Give a part of a channel, or with null let it be worked out. */
export function setKnown(id: string, key: string, value: number | null): void {
  if (value !== null && !(value > 0))
    throw new ReedError(
      'range',
      'A part must be greater than zero; empty the field to have it worked out.',
    );
  changeBank((b) => ({
    ...b,
    channels: b.channels.map((c) => {
      if (c.id !== id) return c;
      const known = Object.fromEntries(Object.entries(c.known).filter(([k]) => k !== key));
      return { ...c, known: value === null ? known : { ...known, [key]: value } };
    }),
  }));
}

/** Known parts of several channels at once. */
export const putKnownTable = (table: KnownTable): void =>
  changeBank((b) => withKnownTable(b, table));

/** What the drawing of a board says of a part; without a value nothing. */
export function setMarked(
  id: string,
  key: string,
  change: { value?: number; trimmer?: number },
): void {
  changeBank((b) => ({
    ...b,
    channels: b.channels.map((c) => {
      if (c.id !== id) return c;
      const { value, trimmer } = { ...c.marked?.[key], ...change };
      const marked = { ...c.marked };
      if (value === undefined) delete marked[key];
      else marked[key] = { value, ...(trimmer === undefined ? {} : { trimmer }) };
      return { ...c, marked };
    }),
  }));
}

/** One more channel: as far above the last as that is above the one before it. */
export function addChannel(): void {
  changeBank((b) => {
    const sorted = [...b.channels].sort((x, y) => x.centreHz - y.centreHz);
    const [last, before] = [sorted[sorted.length - 1], sorted[sorted.length - 2]];
    const ratio = before ? last.centreHz / before.centreHz : 2;
    let n = b.channels.length + 1;
    while (b.channels.some((c) => c.id === `c${n}`)) n++;
    const centreHz = Number((last.centreHz * ratio).toPrecision(3));
    return { ...b, channels: [...b.channels, { ...last, id: `c${n}`, centreHz, known: {} }] };
  });
}

export function removeChannel(id: string): void {
  changeBank((b) => ({ ...b, channels: b.channels.filter((c) => c.id !== id) }));
}
