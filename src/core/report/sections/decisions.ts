import { isTakenBack } from '@/core/book/taken-back';
import { entryWords } from '@/core/book/words';
import type { SectionKind } from '../sheet-report';

/** As many as are told, those with a reason before those without. */
const MOST = 40;

/** What was decided and why, oldest first, as the book has it. */
export const decisions: SectionKind = {
  title: 'Decisions',
  write({ lines }) {
    const told = [...lines]
      .sort((a, b) => Number(b.note !== '') - Number(a.note !== ''))
      .slice(0, MOST);
    const items = lines
      .filter((line) => told.includes(line) && !(isTakenBack(line) && line.note === ''))
      .map((line) => {
        const words = entryWords(line);
        const why = line.note !== '' && line.kind !== 'note' ? ` Why: ${line.note}` : '';
        return `${line.at.slice(0, 10)}: ${words}.${why}`;
      })
      .reverse();
    return items.length === 0 ? [] : [{ is: 'list', items }];
  },
};
