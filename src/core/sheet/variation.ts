import type { Sheet } from './schema';
import { SolvedWay, type LayerTrace } from './solved-way';
import { valuesOf, withValue } from './stage';

/** The built curve with a control at each of the given places of its travel. */
export function controlVariation(
  sheet: Sheet,
  control: string,
  places: readonly number[],
  wayIndex = 0,
): LayerTrace[] {
  return places.map((at) => {
    const controls = sheet.controls.map((c) => (c.id === control ? { ...c, at } : c));
    return builtTrace({ ...sheet, controls }, wayIndex);
  });
}

/** The built curve with one part moved by each of the given factors: what a few percent of it do. */
export function partVariation(
  sheet: Sheet,
  stageId: string,
  part: string,
  factors: readonly number[],
  wayIndex = 0,
): LayerTrace[] {
  return factors.map((factor) => {
    const ways = sheet.ways.map((way, w) => ({
      ...way,
      stages: way.stages.map((s) =>
        w === wayIndex && s.id === stageId ? withValue(s, part, valuesOf(s)[part] * factor) : s,
      ),
    }));
    return builtTrace({ ...sheet, ways }, wayIndex);
  });
}

function builtTrace(sheet: Sheet, way: number): LayerTrace {
  const { fromHz, toHz } = sheet.view;
  return new SolvedWay('', { design: sheet, way, version: 'built', span: { fromHz, toHz } }).trace;
}
