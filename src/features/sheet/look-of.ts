import type { LayerId } from '@/core/sheet/layers';
import type { LayerLook } from '@/ui/chart/layers';

/** How a layer of a sheet looks in every picture. */
export const lookOf = (id: LayerId): LayerLook => (id === 'ideal' || id === 'built' ? id : 'keep');
