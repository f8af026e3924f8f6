import { asBuilt } from '@/core/bench/as-built';
import { entryWords } from '@/core/book/words';
import { sheetInState } from '@/core/book/state';
import { readSheetFiles } from '@/core/sheet/file';
import { withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { ReedError } from '@/core/errors';
import { entriesOf } from '@/store/book';
import { database } from '@/store/database';
import { solvedByLibrary } from '@/store/library';
import { stateOf } from '@/store/states';
import { dateWords } from '@/ui/controls/date-words';

/** A state of a sheet that can be compared, by where it comes from. */
export interface ComparedState {
  key: string;
  /** Where it stands in the list. */
  group: 'The sheet' | 'Keeps' | 'Boards' | 'Book' | 'Files';
  name: string;
  /** The state itself; as it is solved. */
  load: () => Promise<Sheet>;
}

const solved = async (sheet: Sheet): Promise<Sheet> => (await solvedByLibrary([sheet]))[0];

/** Every state of a sheet that is known: as it is, kept, as its boards are, and what the book holds. */
export async function statesOf(sheet: Sheet): Promise<ComparedState[]> {
  const lines = (await entriesOf(sheet.id)).filter((e) => e.before !== undefined || e.after);
  const inState = (key: string) => async () =>
    solved(sheetInState(sheet, await stateOf(key, database())));
  return [
    { key: 'today', group: 'The sheet', name: 'As it is', load: () => solved(sheet) },
    ...sheet.keeps.map((k): ComparedState => ({
      key: `keep ${k.id}`,
      group: 'Keeps',
      name: k.name,
      load: () => solved(sheetInState(sheet, { title: sheet.title, design: k.design })),
    })),
    ...sheet.boards.map((b): ComparedState => ({
      key: `board ${b.id}`,
      group: 'Boards',
      name: b.name || b.id,
      load: () => solved(asBuilt(sheet, b)),
    })),
    ...lines.flatMap((line): ComparedState[] => {
      const words = `${dateWords(line.at, 'short')}: ${entryWords(line)}`;
      const { before, after } = line;
      return [
        ...(after === undefined
          ? []
          : [{ key: `after ${line.id}`, name: `After ${words}`, load: inState(after) }]),
        ...(before === undefined
          ? []
          : [{ key: `before ${line.id}`, name: `Before ${words}`, load: inState(before) }]),
      ].map((state) => ({ group: 'Book' as const, ...state }));
    }),
  ];
}

/**
 * A state from a file of one sheet.
 *
 * @throws ReedError `document` when it is none
 */
export function stateOfFile(name: string, text: string): ComparedState {
  const [file, ...more] = readSheetFiles(text);
  if (file instanceof ReedError) throw file;
  if (more.length > 0)
    throw new ReedError('document', 'The file holds several sheets: export the one alone.');
  const { sheet, along } = file;
  return {
    key: `file ${name}`,
    group: 'Files',
    name,
    load: () => Promise.resolve(withDrivers(sheet, along.drivers)),
  };
}
