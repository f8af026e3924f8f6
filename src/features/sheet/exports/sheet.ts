import { sheetFile } from '../sheet-file';
import type { Export } from './export';

export const sheetExport: Export = {
  id: 'sheet',
  title: 'Sheet file (JSON)',
  run: sheetFile,
};
