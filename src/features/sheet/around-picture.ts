/** What stands around the picture of a sheet, as one piece to fetch. */
export { CircuitPanel } from './circuit-panel';
export { LensBar } from './lens-bar';
export { PathStrip } from './path-strip';
export { ReadingsTable } from './readings-table';
export { SheetHeader } from './sheet-header';
export { SpreadKey } from './spread-key';
export { followDesigns } from './fitting';
export { followSpread } from './spreads';
export { followBuiltBoards } from '../parts-list/follow';
export { followFigures } from '../book/follow-figures';
