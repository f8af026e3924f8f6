import { makeSheet, makeStage, DEFAULT_PARTS } from '@/core/sheet/make';
import type { Sheet } from '@/core/sheet/schema';
import { designedAs, valuesOf } from '@/core/sheet/stage';
import { topologyOf } from '@/core/topologies';
import type { StageAsk, StageFigures, Topology } from '@/core/topologies/topology';
import { Answers, figure, so } from './goals';
import type { Chapter, Lesson } from './lesson';

interface Tuned {
  id: string;
  chapter: Chapter;
  topology: string;
  /** What it is designed for at first, and what it is to be turned to. */
  from: StageAsk;
  to: StageAsk;
  title?: string;
  see?: string;
}

/** A sheet that consists of one stage. */
export function sheetOfStage(
  id: string,
  title: string,
  at: string,
  topology: Topology,
  figures: StageAsk,
): Sheet {
  const sheet = makeSheet({
    id,
    title,
    at,
    ask: {
      kind: 'low-pass',
      shape: 'butterworth',
      order: 1,
      edgeHz: figures.f0Hz,
      edge: 'half-power',
    },
    load: { ohms: null },
  });
  const stage = makeStage('s1', topology, figures, DEFAULT_PARTS, 'hand');
  return { ...sheet, readings: [], ways: [{ ...sheet.ways[0], stages: [stage] }] };
}

/** A lesson on what sets what, from a topology's own words, formulas and figures. */
export function tuned({ id, chapter, topology: name, from, to, title, see }: Tuned): Lesson {
  const topology = topologyOf(name);
  const asked = figuresAsked(to);
  return {
    id,
    chapter,
    title: title ?? topology.name,
    question: `${topology.name}: which parts set ${listed(asked.map(([word]) => NAMES[word]))}?`,
    turn: topology.tuning,
    see: see ?? topology.about,
    because: `${topology.sensitivity} ${topology.avoid}`,
    topology: name,
    begin: (sheet, at) => sheetOfStage(sheet, title ?? topology.name, at, topology, from),
    goals: (sheet) => {
      const [stage] = new Answers(sheet).stages;
      const isStill = stage !== undefined && designedAs(stage)?.id === name && !stage.drawing;
      const is: StageFigures | undefined = isStill ? topology.figures(valuesOf(stage)) : undefined;
      return [
        ...asked.map(([word, of, wanted]) => figure(word, is && of(is), wanted)),
        ...(isStill
          ? []
          : [so('The circuit as it is drawn', 'another stands in its place', false)]),
      ];
    },
  };
}

const NAMES = { f0: 'f₀', Q: 'Q', gain: 'the gain' } as const;

const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

type Asked = ['f0' | 'Q' | 'gain', (f: StageFigures) => number | undefined, number];

function figuresAsked({ f0Hz, q, gain }: StageAsk): Asked[] {
  const all: [Asked[0], Asked[1], number | undefined][] = [
    ['f0', (f) => f.f0Hz, f0Hz],
    ['Q', (f) => f.q, q],
    ['gain', (f) => f.gain, gain],
  ];
  return all.flatMap(([word, of, wanted]): Asked[] =>
    wanted === undefined ? [] : [[word, of, wanted]],
  );
}
