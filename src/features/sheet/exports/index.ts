import { sheetOf, useSession } from '@/store/sheet-session';
import type { Export } from './export';
import { linkExport } from './link';
import { picturePngExport, pictureSvgExport } from './picture';
import { responseCsvExport } from './response-csv';
import { schematicPngExport, schematicSvgExport } from './schematic';
import { sheetExport } from './sheet';

/** Everything a sheet can be written to. A new one is a file and a line here. */
export const EXPORTS: readonly Export[] = [
  sheetExport,
  linkExport,
  responseCsvExport,
  schematicSvgExport,
  schematicPngExport,
  pictureSvgExport,
  picturePngExport,
];

/** Write the open sheet out. */
export async function exportNow(id: string): Promise<void> {
  const sheet = sheetOf(useSession.getState());
  if (sheet) await EXPORTS.find((e) => e.id === id)!.run(sheet);
}
