import { designSchema, type SheetDesign } from './schema';

const FIELDS = Object.keys(designSchema.shape) as (keyof SheetDesign)[];

/** What of a sheet a keep holds and going back restores. */
export const designOf = (of: SheetDesign): SheetDesign =>
  Object.fromEntries(
    FIELDS.flatMap((field) => (of[field] === undefined ? [] : [[field, of[field]]])),
  ) as SheetDesign;
