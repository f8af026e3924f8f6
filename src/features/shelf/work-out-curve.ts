import { withDrivers } from '@/core/sheet/references';
import type { Card, CardCurve } from '@/store/card';
import { libraryFor } from '@/store/library';
import { required } from '@/store/sheets';
import { engine } from '@/workers/engine';

/** The small curve of a card's sheet, worked out anew. */
export async function workOutCurve(
  { id, curveKey }: Pick<Card, 'id' | 'curveKey'>,
  signal: AbortSignal,
): Promise<CardCurve> {
  const stored = await required(id);
  const { library } = await libraryFor([stored]);
  const sheet = withDrivers(stored, library.drivers);
  const drawn = await engine().run('cardCurve', { sheet }, { signal });
  return { key: curveKey, ...drawn };
}
