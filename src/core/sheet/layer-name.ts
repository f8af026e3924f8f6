import type { LayerId } from './layers';
import type { Sheet } from './schema';

/** Names of layers as columns and legends show them. */
export function layerName(id: LayerId, sheet: Pick<Sheet, 'keeps'>): string {
  if (!id.startsWith('keep:')) return id;
  const keep = sheet.keeps.find((k) => `keep:${k.id}` === id);
  return `keep “${keep?.name ?? '?'}”`;
}
