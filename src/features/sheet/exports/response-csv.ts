import { solvedSheet } from '@/store/open-library';
import { download, fileName } from '@/ui/download';
import { engine } from '@/workers/engine';
import type { Export } from './export';

export const responseCsvExport: Export = {
  id: 'csv',
  title: 'Response of every layer (CSV)',
  async run(sheet) {
    if (sheet.crossover) {
      const { crossoverCsv } = await import('@/core/formats/crossover-csv');
      const csv = crossoverCsv(await engine().crossover(solvedSheet(sheet)), sheet);
      download(fileName(sheet.title, 'csv'), csv, 'text/csv');
      return;
    }
    const { responseCsv } = await import('@/core/formats/csv');
    const csv = responseCsv(await engine().evaluate(solvedSheet(sheet)), sheet);
    download(fileName(sheet.title, 'csv'), csv, 'text/csv');
  },
};
