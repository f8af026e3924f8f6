import type { Reading } from '@/core/sheet/schema';
import { newId } from '@/store/ids';
import { edit } from '@/store/sheet-session';

export function addReading(reading: Omit<Reading, 'id'>): void {
  edit((c) => ({ readings: [...c.readings, { ...reading, id: newId('r') }] }));
}

export function changeReading(id: string, change: Partial<Omit<Reading, 'id'>>): void {
  edit((c) => ({ readings: c.readings.map((r) => (r.id === id ? { ...r, ...change } : r)) }));
}

export function removeReading(id: string): void {
  edit((c) => ({ readings: c.readings.filter((r) => r.id !== id) }));
}
