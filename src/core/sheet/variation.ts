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
  const variants = places.map((at) => {
    const controls = sheet.controls.map((c) => (c.id === control ? { ...c, at } : c));
    return { ...sheet, controls };
  });
  return builtTraces(variants, wayIndex);
}

/** The built curve with one part moved by each of the given factors: what a few percent of it do. */
export function partVariation(
  sheet: Sheet,
  stageId: string,
  part: string,
  factors: readonly number[],
  wayIndex = 0,
): LayerTrace[] {
  const variants = factors.map((factor) => {
    const ways = sheet.ways.map((way, w) => ({
      ...way,
      stages: way.stages.map((s) =>
        w === wayIndex && s.id === stageId ? withValue(s, part, valuesOf(s)[part] * factor) : s,
      ),
    }));
    return { ...sheet, ways };
  });
  return builtTraces(variants, wayIndex);
}

/** The built curves of sheets that are alike but for values: each takes over the equations before it. */
function builtTraces(sheets: readonly Sheet[], way: number): LayerTrace[] {
  let last: SolvedWay | undefined;
  return sheets.map((design) => {
    const { fromHz, toHz } = design.view;
    last = new SolvedWay('', { design, way, version: 'built', span: { fromHz, toHz } }, last);
    return last.trace;
  });
}
