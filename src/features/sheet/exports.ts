import { ReedError } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { lensOf } from './lenses';
import { sheetFile } from './sheet-file';
import { download, fileName } from '@/ui/download';
import { sheetOf, useSession } from '@/store/sheet-session';
import { engine } from '@/workers/engine';
import { pictureSvg, svgToPng } from '@/ui/picture-export';

export interface Export {
  id: string;
  title: string;
  run(sheet: Sheet): Promise<void>;
}

/** Everything a sheet can be written to. */
export const EXPORTS: readonly Export[] = [
  {
    id: 'sheet',
    title: 'Sheet file (JSON)',
    run: (sheet) => Promise.resolve(sheetFile(sheet)),
  },
  {
    id: 'csv',
    title: 'Response of every layer (CSV)',
    run: async (sheet) => {
      const { responseCsv } = await import('@/core/formats/csv');
      const csv = responseCsv(await engine().evaluate(sheet), sheet);
      download(fileName(sheet.title, 'csv'), csv, 'text/csv');
    },
  },
  {
    id: 'schematic-svg',
    title: 'Schematic as shown (SVG)',
    run: (sheet) =>
      Promise.resolve(
        download(fileName(`${sheet.title} schematic`, 'svg'), schematic(), 'image/svg+xml'),
      ),
  },
  {
    id: 'schematic-png',
    title: 'Schematic as shown (PNG)',
    run: async (sheet) =>
      download(
        fileName(`${sheet.title} schematic`, 'png'),
        await svgToPng(schematic()),
        'image/png',
      ),
  },
  {
    id: 'picture-svg',
    title: 'Picture as shown (SVG)',
    run: (sheet) =>
      Promise.resolve(
        download(
          fileName(`${sheet.title} ${lensOf(sheet.view.lens).id}`, 'svg'),
          picture(),
          'image/svg+xml',
        ),
      ),
  },
  {
    id: 'picture-png',
    title: 'Picture as shown (PNG)',
    run: async (sheet) =>
      download(
        fileName(`${sheet.title} ${lensOf(sheet.view.lens).id}`, 'png'),
        await svgToPng(picture()),
        'image/png',
      ),
  },
];

function schematic(): string {
  const svg = document.querySelector<SVGSVGElement>('svg[data-schematic]');
  if (!svg)
    throw new ReedError('document', 'There is no schematic on screen: choose a stage first.');
  return pictureSvg(svg);
}

function picture(): string {
  const svg = document.querySelector<SVGSVGElement>('[data-picture] svg');
  if (!svg) throw new ReedError('document', 'There is no picture on screen yet.');
  return pictureSvg(svg);
}

/** Write the open sheet out. */
export async function exportNow(id: string): Promise<void> {
  const sheet = sheetOf(useSession.getState());
  if (sheet) await EXPORTS.find((e) => e.id === id)!.run(sheet);
}
