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
      ? [id, from, stages.map(idealPart)]
      : [id, from, to, stages.map(builtPart)];
  });
  const shared =
    version === 'ideal' ? [] : [design.source.ohms, design.parts.opAmp.model, design.controls];
  return JSON.stringify([version, way, span, shared, relevant, context]);
}

const idealPart = (s: Stage) => [
  s.id,
  s.topology,
  s.bypassed,
  s.heard,
  s.target,
  s.farads,
  s.ohms,
  ...(s.topology === undefined ? [s.drawing, s.parts] : []),
];

const builtPart = (s: Stage) => [
  s.id,
  s.drawing ?? s.topology,
  s.bypassed,
  s.heard,
  Object.entries(s.parts).map(([id, { value, more, losses, model }]) => [
    id,
    value,
    more,
    losses,
    model?.model,
  ]),
];

/** Everything that bears on the curve by which the shelf shows a sheet. */
export function builtKey(sheet: Sheet): string {
  const { fromHz, toHz } = sheet.view;
  const paths = sheet.bank ? sheet.ways.map((_, i) => i) : [0];
  return JSON.stringify([
    sheet.bank?.alternate,
    paths.map((i) => versionKey(sheet, i, 'built', { fromHz, toHz })),
  ]);
}
