import { partNamesOf } from '@/core/differences/names';
import { partWords } from '@/core/differences/part-words';
import { partKindOf } from '@/core/parts';
import { designedAs, drawnParts, partsSinceDesign, stageName, valuesOf } from '@/core/sheet/stage';
import { texInPath, wordsInPath } from '@/core/sheet/words-in-path';
import { table, text, type ReportBlock } from '../report';
import type { SectionKind } from '../sheet-report';

const CHOSEN: Readonly<Record<string, string>> = {
  fit: 'fitted',
  hand: 'by hand',
  known: 'given',
  solved: 'solved for',
};

/** Every part of every stage: what it is, who chose it, and the formula that it follows from. */
export const valuesAndWhy: SectionKind = {
  title: 'Values, and why',
  write({ sheet }) {
    const nameOf = partNamesOf(sheet);
    return sheet.ways.flatMap((way) =>
      way.stages.flatMap((stage, i): ReportBlock[] => {
        const called = (part: string) => nameOf(way, stage, part);
        const rows = drawnParts(stage).map(({ id, kind }) => {
          const part = stage.parts[id] as (typeof stage.parts)[string] | undefined;
          const value = part?.value === undefined ? undefined : part.chosen;
          return [
            called(id),
            partKindOf(kind).noun,
            partWords(kind, part),
            value === undefined ? '' : CHOSEN[value],
          ];
        });
        const topology = designedAs(stage);
        const isWhole = topology && partsSinceDesign(stage).gone.length === 0;
        const why = isWhole ? topology.explain(valuesOf(stage)) : [];
        // The stage’s own words speak of its own names; in the path they are numbered on.
        const inPath = (part: string) => called(part).split(': ').at(-1)!;
        const inWords = (words: string) => wordsInPath(words, inPath);
        const inTex = (tex: string) => texInPath(tex, inPath);
        return [
          text(
            `${sheet.ways.length > 1 ? `${way.name || way.id}, ` : ''}stage ${i + 1}: ${stageName(stage)}.${topology ? ` ${inWords(topology.about)}` : ''}`,
          ),
          table(['Part', 'is a', 'value', 'chosen'], rows, [2]),
          ...why.flatMap((e): ReportBlock[] => [
            {
              is: 'formula',
              tex: inTex(e.numbers === '' ? e.formula : `${e.formula} \\quad ${e.numbers}`),
            },
            text(inWords([`${e.of}: ${e.text}`, e.off, e.rule].filter(Boolean).join(' '))),
          ]),
        ];
      }),
    );
  },
};
