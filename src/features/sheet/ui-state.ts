import { create } from 'zustand';
import type { LayerLook } from '@/ui/chart/chart-model';

/** What is being looked at and touched on the sheet; not part of the sheet. */
interface SheetUi {
  stageId: string | null;
  /** Part of the selected drawing, by composed id. */
  partId: string | null;
  editingPart: string | null;
  /** Part under the pointer or focus: its effect is shown on the picture. */
  pointedPart: string | null;
  wholePath: boolean;
  cursorHz: number | null;
  pinning: boolean;
  keeping: boolean;
  fitting: boolean;
  /** Phase between -180 and 180 degrees instead of followed on. */
  phaseWrapped: boolean;
  weighing: boolean;
  /** Weighed designs laid over the level picture. */
  laidOver: readonly LaidOver[];
}

export interface LaidOver {
  name: string;
  look: LayerLook;
  trace: { frequenciesHz: Float64Array; levelDb: Float64Array };
}

const FRESH: SheetUi = {
  stageId: null,
  partId: null,
  editingPart: null,
  pointedPart: null,
  wholePath: false,
  cursorHz: null,
  pinning: false,
  keeping: false,
  fitting: false,
  phaseWrapped: false,
  weighing: false,
  laidOver: [],
};

export const useUi = create<SheetUi>()(() => FRESH);
export const setUi = (change: Partial<SheetUi>) => useUi.setState(change);
export const resetUi = () => useUi.setState(FRESH);
