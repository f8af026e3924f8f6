import { svgToPng } from '@/ui/picture-export';
import { download, fileName } from '@/ui/download';
import type { Export } from './export';
import { shownSvg } from './shown-svg';

const svg = () =>
  shownSvg('svg[data-schematic]', 'There is no schematic on screen: choose a stage first.');

export const schematicSvgExport: Export = {
  id: 'schematic-svg',
  title: 'Schematic as shown (SVG)',
  run: ({ title }) => download(fileName(`${title} schematic`, 'svg'), svg(), 'image/svg+xml'),
};

export const schematicPngExport: Export = {
  id: 'schematic-png',
  title: 'Schematic as shown (PNG)',
  run: async ({ title }) =>
    download(fileName(`${title} schematic`, 'png'), await svgToPng(svg()), 'image/png'),
};
