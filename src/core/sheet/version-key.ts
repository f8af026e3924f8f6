import type { ReadingContext } from '@/core/response/readings';
import { waysTogether, type CircuitDesign, type PathVersion } from './path-circuit';
import type { Sheet, Stage } from './schema';

export interface Span {
  fromHz: number;
  toHz: number;
}

/**
 * Everything that bears on a version's curve and readings, as text: equal keys mean equal curves.
 *
 * @param context what its ask tells the reader
 */
export function versionKey(
  design: CircuitDesign,
  way: number,
  version: PathVersion,
  span: Span,
  context?: ReadingContext,
): string {
  const relevant = waysTogether(design, way, version).map((w) => {
    const { id, from, stages, to } = design.ways[w];
    return version === 'ideal'
      ? [id, from, stages.map((s) => textsOf(s).ideal)]
      : [id, from, to, stages.map((s) => textsOf(s).built)];
  });
  const shared =
    version === 'ideal'
      ? []
      : [design.source.ohms, design.parts.opAmp.model, design.parts.supply, design.controls];
  return JSON.stringify([version, way, span, shared, relevant, context]);
}

/** All that a stage is, as text; found once for each. */
export function stageText(stage: Stage): string {
  return textsOf(stage).whole;
}

interface Texts {
  whole: string;
  ideal: string;
  built: string;
}
const texts = new WeakMap<Stage, Texts>();

/** Stages are never changed, but made anew: what one says is found once. */
function textsOf(stage: Stage): Texts {
  let found = texts.get(stage);
  if (!found) {
    const of = (x: unknown) => JSON.stringify(x);
    found = { whole: of(stage), ideal: of(idealPart(stage)), built: of(builtPart(stage)) };
    texts.set(stage, found);
  }
  return found;
}

const idealPart = (s: Stage) => [
  s.id,
  s.topology,
  s.bypassed,
  s.heard,
  s.target,
  s.farads,
  s.ohms,
  s.impedance,
  ...(s.topology === undefined ? [s.drawing, s.parts] : []),
];

const builtPart = (s: Stage) => [
  s.id,
  s.drawing ?? s.topology,
  s.bypassed,
  s.heard,
  Object.entries(s.parts).map(([id, { value, more, losses, wound, model }]) => [
    id,
    value,
    more,
    wound ?? losses,
    model?.model,
  ]),
];

/** Everything that bears on the curve by which the shelf shows a sheet. */
export function builtKey(sheet: Sheet): string {
  const { fromHz, toHz } = sheet.view;
  const paths = sheet.bank || sheet.crossover ? sheet.ways.map((_, i) => i) : [0];
  return JSON.stringify([
    sheet.bank?.alternate,
    sheet.crossover?.listen,
    paths.map((i) => versionKey(sheet, i, 'built', { fromHz, toHz })),
  ]);
}
