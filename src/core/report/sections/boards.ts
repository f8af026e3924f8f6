import { benchSheet } from '@/core/bench/bench-sheet';
import { isSamePoint } from '@/core/bench/points';
import { readBoards } from '@/core/bench/take-readings';
import { isOutside } from '@/core/bench/verdict';
import { changesBetween } from '@/core/differences/differences';
import { changeWords } from '@/core/differences/change';
import { asBuilt } from '@/core/bench/as-built';
import { printMeasured, readingName } from '@/core/sheet/words';
import { table, text, type ReportBlock } from '../report';
import type { SectionKind, SectionSubject } from '../sheet-report';

/** What was built and measured, board by board. */
export const boards: SectionKind = {
  title: 'Boards',
  async write(subject, pause) {
    const { sheet } = subject;
    const blocks: ReportBlock[] = [];
    for (const board of sheet.boards) {
      await pause();
      const parts = changesBetween(sheet, asBuilt(sheet, board))
        .filter((c) => c.kind === 'value' && !c.what.includes(','))
        .map(changeWords);
      const done = board.done?.length ?? 0;
      blocks.push(
        text(
          [
            `${board.name || board.id}: ${board.took ? 'built' : 'not built yet'}, ${done} steps done.`,
            parts.length > 0 ? `On it, other than on the sheet: ${parts.join(', ')}.` : '',
            board.note,
          ]
            .filter(Boolean)
            .join(' '),
        ),
        ...readOf(subject, board),
      );
    }
    return blocks;
  },
};

/** The readings of a board’s latest take of the output, and whether tolerances explain them. */
function readOf(
  { sheet, library, foreseen }: SectionSubject,
  board: SectionSubject['sheet']['boards'][number],
): ReportBlock[] {
  const takes = board.takes.flatMap((id) => library.takes.find((t) => t.id === id) ?? []);
  const take = takes.findLast((t) => isSamePoint(t.of, undefined));
  if (!take || sheet.readings.length === 0) return [];
  const [read] = readBoards(benchSheet(sheet, undefined), [{ board, take }], library.drawer);
  const stages = sheet.ways[0].stages.map((s) => s.id);
  const rows = sheet.readings.flatMap((reading, i) => {
    const value = read.values[i];
    if (value === null) return [];
    const limits = foreseen?.spread.readings[i];
    const verdict = limits
      ? isOutside(value, read.noise[i] ?? 0, limits)
        ? 'outside what tolerances allow'
        : 'within'
      : '';
    return [
      [readingName(reading, 'point', stages), printMeasured(reading.measure, value), verdict],
    ];
  });
  return [
    text(`Its take ${take.name}, of ${take.at.slice(0, 10)}:`),
    table(['Reading', 'measured', ''], rows, [1]),
  ];
}
