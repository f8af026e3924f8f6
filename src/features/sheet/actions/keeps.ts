import { designOf } from '@/core/sheet/design-of';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import type { Keep } from '@/core/sheet/schema';
import { cut } from '@/core/text';
import { newId, now } from '@/store/ids';
import { doneBy, edit } from '@/store/sheet-session';

/** A named snapshot to compare against and go back to. */
export function keepNow(name: string): void {
  edit((c) => {
    const keep: Keep = {
      id: newId('k'),
      name: cut(name.trim(), SHEET_LIMITS.name) || `Keep ${c.keeps.length + 1}`,
      at: now(),
      shown: true,
      design: designOf(c),
    };
    return { keeps: [...c.keeps, keep] };
  });
}

export function showKeep(id: string, shown: boolean): void {
  edit((c) => ({ keeps: c.keeps.map((k) => (k.id === id ? { ...k, shown } : k)) }));
}

export function removeKeep(id: string): void {
  edit((c) => ({ keeps: c.keeps.filter((k) => k.id !== id) }));
}

/** Put the sheet back to what a keep holds. Undo brings the present back. */
export function goBackTo(id: string): void {
  doneBy('Back to a keep', () =>
    edit((c) => {
      const keep = c.keeps.find((k) => k.id === id);
      return keep ? { ...designOf(keep.design), bank: keep.design.bank } : {};
    }),
  );
}
