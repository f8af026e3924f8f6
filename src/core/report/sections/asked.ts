import { isCrossover } from '@/core/crossover/crossover-design';
import { leavesBetween, leafWords, pathWords } from '@/core/differences/leaves';
import { figuresOf } from '@/core/differences/figures';
import { hasTopology, topologyOf } from '@/core/topologies';
import { inWords } from '@/core/quantity/format';
import { printMeasured, printWanted, readingName } from '@/core/sheet/words';
import { meets } from '@/core/sheet/verdict';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { followsAsk } from '@/core/sheet/make';
import type { Sheet } from '@/core/sheet/schema';
import { supplyWords } from '@/core/sheet/supply-words';
import { table, text, type ReportBlock } from '../report';
import type { SectionKind, SectionSubject } from '../sheet-report';

/** Everything that a document says, field by field, as “name, value”. */
const fieldsOf = (document: unknown): string[] =>
  leavesBetween({}, document).map(
    (leaf) => `${pathWords(leaf.path)}: ${leafWords(leaf).after ?? 'none'}`,
  );

/** What was asked for, between what it stands, and what became of every wish. */
export const asked: SectionKind = {
  title: 'What was asked for',
  write: (subject) => [...askBlocks(subject.sheet), ends(subject.sheet), readings(subject)],
};

function askBlocks(sheet: Sheet): ReportBlock[] {
  if (sheet.crossover) {
    const { splitsHz, alignment, order, fromHz, toHz, withinDb, leastOhms } = sheet.crossover;
    return [
      {
        is: 'list',
        items: fieldsOf({ splitsHz, alignment, order, fromHz, toHz, withinDb, leastOhms }),
      },
    ];
  }
  if (sheet.bank)
    return [
      text(
        `A bank of ${sheet.bank.channels.length} bands, crossing at −${sheet.bank.overlapDb} dB.`,
      ),
    ];
  if (!followsAsk(sheet)) return [text('Put together by hand, stage by stage.')];
  const { topology, edge, ...ask } = sheet.ask;
  const name =
    topology !== undefined && hasTopology(topology) ? topologyOf(topology).name : undefined;
  return [
    {
      is: 'list',
      items: fieldsOf({
        ...ask,
        ...(edge ? { edgeAt: edge } : {}),
        ...(name ? { builtAs: name } : {}),
      }),
    },
  ];
}

function ends({ source, ways, parts }: Sheet): ReportBlock {
  const to = ways.map((w) => w.to.name).filter(Boolean);
  return text(
    `From ${source.name || 'the source'}, ${inWords(source.ohms, 'ohms')} and ${inWords(source.volts, 'volts')} r.m.s., to ${[...new Set(to)].join(', ') || 'the load'}. Supply ${supplyWords(parts.supply)}; amplifiers: ${parts.opAmp.name}.`,
  );
}

function readings({ sheet, foreseen }: SectionSubject): ReportBlock {
  if (isCrossover(sheet) || sheet.bank) {
    const rows = figuresOf(sheet).map(({ name, words }) => [name, words]);
    return table(['Reading', 'as built'], rows, [1]);
  }
  const evaluation = new SheetEvaluator().evaluate({ ...sheet, keeps: [] });
  const stages = sheet.ways[0].stages.map((s) => s.id);
  const rows = sheet.readings.map((reading, i) => {
    const { ideal, built } = evaluation.readings[i].results;
    const print = (value: number) => printMeasured(reading.measure, value);
    const read = (result: typeof ideal) =>
      result && 'measured' in result ? print(result.measured.value) : '–';
    const spread = foreseen?.spread.readings[i];
    const isMet =
      reading.wanted && built && 'measured' in built
        ? meets(reading.wanted, built.measured.value)
          ? 'met'
          : 'missed'
        : '';
    return [
      readingName(reading, 'point', stages),
      reading.wanted ? printWanted(reading.measure, reading.wanted) : '',
      read(ideal),
      read(built),
      spread ? `${print(spread.p5)} to ${print(spread.p95)}` : '–',
      isMet,
    ];
  });
  return table(
    ['Reading', 'wanted', 'ideal', 'built', 'nine boards in ten', ''],
    rows,
    [1, 2, 3, 4],
  );
}
