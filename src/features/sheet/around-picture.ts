/** What stands around the picture of a sheet, as one piece to fetch. */
export { CircuitPanel } from './circuit-panel';
export { PathStrip } from './path-strip';
export { PictureSpan } from './picture-span';
export { ReadingsTable } from './readings-table';
export { SheetHeader } from './sheet-header';
