import { ReedError } from '@/core/errors';
import type { Source } from '@/core/sheet/schema';
import { edit } from '@/store/sheet-session';
import { withWay } from './within';

/** What may be changed of a way's end. */
export interface LoadChange {
  name?: string;
  ohms?: number | null;
  farads?: number | null;
}

export function setSource(change: Partial<Source>): void {
  if (change.ohms !== undefined && change.ohms < 0)
    throw new ReedError('range', 'A source resistance cannot be negative.');
  if (change.volts !== undefined && !(change.volts > 0))
    throw new ReedError('range', 'The source voltage must be greater than zero.');
  edit((c) => ({ source: { ...c.source, ...change } }));
}

export function setLoad(change: LoadChange): void {
  for (const value of [change.ohms, change.farads]) {
    if (typeof value === 'number' && !(value > 0))
      throw new ReedError('range', 'A load must be greater than zero; empty the field for none.');
  }
  edit((c) =>
    withWay(c, ({ to, ...way }) => {
      // A loudspeaker is what it is; only its name here can be changed.
      const { name = to.name } = change;
      return { ...way, to: to.is === 'driver' ? { ...to, name } : { ...to, ...change } };
    }),
  );
}
