import type { Sheet } from '@/core/sheet/schema';
import { svgToPng } from '@/ui/picture-export';
import { download, fileName } from '@/ui/download';
import { lensOf } from '../lenses';
import type { Export } from './export';
import { shownSvg } from './shown-svg';

const svg = () => shownSvg('[data-picture] svg', 'There is no picture on screen yet.');
const nameOf = ({ title, view, crossover }: Sheet, ending: string) =>
  fileName(`${title} ${crossover ? view.lens : lensOf(view.lens).id}`, ending);

export const pictureSvgExport: Export = {
  id: 'picture-svg',
  title: 'Picture as shown (SVG)',
  run: (sheet) => download(nameOf(sheet, 'svg'), svg(), 'image/svg+xml'),
};

export const picturePngExport: Export = {
  id: 'picture-png',
  title: 'Picture as shown (PNG)',
  run: async (sheet) => download(nameOf(sheet, 'png'), await svgToPng(svg()), 'image/png'),
};
