import type { ReadingContext } from '@/core/response/readings';
import type { PathVersion } from './path-circuit';
import type { Sheet, SheetDesign } from './schema';

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
  design: Pick<SheetDesign, 'ways' | 'parts'>,
  wayIndex: number,
  version: PathVersion,
  span: Span,
  context?: ReadingContext,
): string {
  const { source, stages, load } = design.ways[wayIndex];
  const relevant =
    version === 'ideal'
      ? stages.map((s) => [s.id, s.topology, s.bypassed, s.target, s.farads, s.ohms])
      : [
          source.ohms,
          load.ohms,
          load.farads,
          design.parts.opAmp.model,
          stages.map((s) => [s.id, s.topology, s.bypassed, s.values]),
        ];
  return JSON.stringify([version, wayIndex, span, relevant, context]);
}

/** Everything that bears on the curve by which the shelf shows a sheet. */
export function builtKey(sheet: Sheet): string {
  const { fromHz, toHz } = sheet.view;
  const paths = sheet.bank ? sheet.ways.map((_, i) => i) : [0];
  return JSON.stringify([
    sheet.bank?.alternate,
    paths.map((i) => versionKey(sheet, i, 'built', { fromHz, toHz })),
  ]);
}
