import { create } from 'zustand';
import type { Point } from '@/core/drawing/drawing';
import type { LayerTrace } from '@/core/sheet/solved-way';
import type { LayerLook } from '@/ui/chart/layers';

/** What is being looked at and touched on the sheet; not part of the sheet. */
interface SheetUi {
  stageId: string | null;
  /** Part of the selected drawing, by composed id. */
  partId: string | null;
  editingPart: string | null;
  /** Part under the pointer or focus: its effect is shown on the picture. */
  pointedPart: string | null;
  /** Parts that something beside the drawing points at, by composed id. */
  litParts: readonly string[];
  wholePath: boolean;
  cursorHz: number | null;
  /** The sentence that changes the circuit, while it is being said. */
  grafting: Grafting | null;
  /** A point of the selected stage’s drawing that the sentence speaks of. */
  markedPlace: Point | null;
  pinning: boolean;
  keeping: boolean;
  /** Two states of it are looked at beside each other. */
  comparing: boolean;
  fitting: boolean;
  /** Phase between -180 and 180 degrees instead of followed on. */
  phaseWrapped: boolean;
  weighing: boolean;
  /** What stands beside parts of the drawing while the circuit is looked at without a signal, by name. */
  atRest: Readonly<Record<string, string>>;
  /** Weighed designs laid over the level picture. */
  laidOver: readonly LaidOver[];
}

/** What is to be done to the circuit, as far as it is said: how, and at which part. */
/** What is done to a point alone. */
export type PointDoing = 'listen' | 'name' | 'output';

export interface Grafting {
  do: 'across' | 'in-line' | 'swap' | 'put' | PointDoing;
  part?: string;
}

export const isPointDoing = (doing: Grafting['do']): doing is PointDoing =>
  doing === 'listen' || doing === 'name' || doing === 'output';

export interface LaidOver {
  name: string;
  look: LayerLook;
  trace: Pick<LayerTrace, 'frequenciesHz' | 'levelDb'>;
}

const FRESH: SheetUi = {
  stageId: null,
  partId: null,
  editingPart: null,
  pointedPart: null,
  litParts: [],
  wholePath: false,
  cursorHz: null,
  grafting: null,
  markedPlace: null,
  pinning: false,
  keeping: false,
  comparing: false,
  fitting: false,
  phaseWrapped: false,
  weighing: false,
  atRest: {},
  laidOver: [],
};

export const useUi = create<SheetUi>()(() => FRESH);
export const setUi = (change: Partial<SheetUi>) => useUi.setState(change);
export const resetUi = () => useUi.setState(FRESH);
