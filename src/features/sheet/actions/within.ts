import type { Stage, Way } from '@/core/sheet/schema';
import type { SheetContent } from '@/store/sheet-session';

/*
 * What a person does to a sheet. Each action is one step of history; what an action throws is said
 * where it was asked for, and the sheet stays as it was.
 */

export const WAY = 0;

export function withWay(
  content: SheetContent,
  change: (way: Way) => Way,
): Pick<SheetContent, 'ways'> {
  return { ways: content.ways.map((way, i) => (i === WAY ? change(way) : way)) };
}

/** A stage put in behind another, or first of all. */
export const withStageAfter = (
  content: SheetContent,
  after: string | null,
  stage: Stage,
): Pick<SheetContent, 'ways'> =>
  withWay(content, (way) => {
    const at = after === null ? 0 : way.stages.findIndex((s) => s.id === after) + 1;
    return { ...way, stages: [...way.stages.slice(0, at), stage, ...way.stages.slice(at)] };
  });

export function withStage(
  content: SheetContent,
  id: string,
  change: (stage: Stage) => Stage,
): Pick<SheetContent, 'ways'> {
  const has = (way: Way) => way.stages.some((s) => s.id === id);
  // A crossover's stages have names of their own over all ways; elsewhere the first way is edited.
  const own = has(content.ways[WAY]) ? WAY : content.ways.findIndex(has);
  return {
    ways: content.ways.map((way, i) =>
      i === own ? { ...way, stages: way.stages.map((s) => (s.id === id ? change(s) : s)) } : way,
    ),
  };
}
