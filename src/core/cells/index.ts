import { quoted } from '@/core/text';
import type { Cell } from './cell';
import { otaCascade } from './ota-cascade';
import { transistorLadder } from './transistor-ladder';

/** Every voltage-controlled cell. A new one is one file and one line here. */
export const CELLS: readonly Cell[] = [otaCascade, transistorLadder];

/** The cell of a name, where this program has one. */
export const cellOf = (id: string | undefined): Cell | undefined => CELLS.find((c) => c.id === id);

/** @throws RangeError for a cell that is not there: a defect of whoever asks */
export function cellNamed(id: string): Cell {
  const cell = cellOf(id);
  if (!cell) throw new RangeError(`No cell is called ${quoted(id)}.`);
  return cell;
}
