import { AcAnalysis } from '@/core/analysis/ac/ac';
import { cellOf } from '@/core/cells';
import type { CellReason, CellValues, TextbookFigures } from '@/core/cells/cell';
import { ReedError } from '@/core/errors';
import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import { movedParts } from '@/core/sheet/controls';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { aroundView } from './control';
import { filterFigures, type FilterFigures } from '@/core/synth/tune';

export interface CellRequest {
  stage: string;
}

/** What the textbook says of a cell as it stands, beside what the solved path does. */
export interface CellPicture {
  textbook: TextbookFigures;
  solved: FilterFigures;
  reasons: CellReason[];
  /** The same without each capacitor that paper leaves out. */
  without: { part: string; figures: FilterFigures }[];
  /** The same with its switches in every place. */
  paths: { name: string; figures: FilterFigures; stands: boolean }[];
}

/**
 * A voltage-controlled cell of the first way, with its controls where they stand.
 *
 * @throws ReedError `range` for a stage that is none, or whose parts are no longer those of its cell;
 *   or as solving the path
 */
export async function cellLens(sheet: Sheet, { stage: id }: CellRequest): Promise<CellPicture> {
  const [way] = sheet.ways;
  const stage = way.stages.find((s) => s.id === id);
  const cell = cellOf(stage?.cell);
  if (!stage || !cell) throw new ReedError('range', 'This stage is no voltage-controlled cell.');
  const values = valuesIn(sheet, stage);
  const solvedWith = (change: Partial<Stage['parts']>) => {
    const stages = way.stages.map((s) =>
      s === stage ? { ...s, parts: { ...s.parts, ...change } as Stage['parts'] } : s,
    );
    const changed = { ...sheet, ways: [{ ...way, stages }, ...sheet.ways.slice(1)] };
    const analysis = new AcAnalysis(pathCircuit(changed, 0, 'built'));
    return filterFigures(analysis, outNet(sheet), aroundView(sheet.view));
  };
  const small = (cell.small ?? []).filter((part) => stage.parts[part]?.value !== undefined);
  const set = (part: string, value: number) => ({ ...stage.parts[part], value });
  const paths = (cell.paths ?? []).map(({ name, closed, open }) => ({
    name,
    figures: solvedWith(
      Object.fromEntries([
        ...closed.map((part) => [part, set(part, 1)] as const),
        ...open.map((part) => [part, set(part, 0)] as const),
      ]),
    ),
    stands: closed.every((part) => values(part) > 0) && open.every((part) => values(part) === 0),
  }));
  return Promise.resolve({
    textbook: cell.textbook(values),
    reasons: cell.reasons(values),
    solved: solvedWith({}),
    without: small.map((part) => ({
      part,
      figures: solvedWith({ [part]: set(part, NOTHING) }),
    })),
    paths,
  });
}

/** A capacitor that is as good as left out, farads. */
const NOTHING = 1e-15;

/** The numbers of a stage as its controls put them. */
function valuesIn(sheet: Sheet, stage: Stage): CellValues {
  const moved = movedParts(sheet, sheet.ways[0], stage);
  const kinds = new Map(drawnParts(stage).map((p) => [p.id, partKindOf(p.kind)]));
  return (part, quantity) => {
    const kind = kinds.get(part);
    if (!kind)
      throw new ReedError(
        'range',
        `The textbook’s formulas speak of ${part}, which is no longer in the circuit: what stands here is solved all the same.`,
      );
    const main = mainQuantity(kind)?.name;
    const asked = quantity ?? main ?? '';
    const { value, more } = stage.parts[part] ?? {};
    return (
      moved.get(part)?.[asked] ??
      (asked === main ? value : more?.[asked]) ??
      kind.quantities.find((q) => q.name === asked)?.usual ??
      NaN
    );
  };
}
