import { biasStageOf } from '@/core/bias';
import { solvedBias, type SolvedBias } from '@/core/bias/solved';
import type { BiasAsk, BiasFigures } from '@/core/bias/stage';
import { ReedError } from '@/core/errors';
import { biasOf, partsAsBias } from '@/core/sheet/bias';
import { partNames } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { withoutPause, type Pause } from './layers';

export interface BiasRequest {
  stage: string;
}

/** A transistor stage as it stands, by rule of thumb and solved, beside what it could become. */
export interface BiasPicture {
  ask: BiasAsk;
  rules: BiasFigures;
  solved: SolvedBias;
  /** How many times what the base takes its divider carries: by rule of thumb ten. */
  stiffness: number | null;
  others: { to: string; by: string; name: string; solved: SolvedBias }[];
  /** Names of its transistors in the path, by part. */
  names: Record<string, string>;
}

/**
 * @throws ReedError `range` for a stage that is none or has lost parts it was planned with,
 *   `convergence` where it finds no rest
 */
export async function biasLens(
  sheet: Sheet,
  { stage: id }: BiasRequest,
  pause: Pause = withoutPause,
): Promise<BiasPicture> {
  const [{ stages }] = sheet.ways;
  const stage = stages.find((s) => s.id === id);
  const { made, ask } = biasOf(stage);
  const drawing = stage!.drawing ?? made.drawing;
  const parts = partsAsBias(stage!);
  const gone = Object.keys(made.plan(ask)).find((part) => !(part in parts));
  if (gone !== undefined)
    throw new ReedError(
      'range',
      `The rules of thumb speak of ${gone}, which is no longer in the circuit: look at it at rest instead.`,
    );
  const solved = solvedBias(drawing, parts, ask);
  const others: BiasPicture['others'] = [];
  for (const { to, by } of made.improve) {
    await pause();
    const other = biasStageOf(to)!;
    try {
      const there = solvedBias(other.drawing, other.plan(ask), ask);
      others.push({ to, by, name: other.name, solved: there });
    } catch (error) {
      // What finds no rest there is no improvement.
      if (!(error instanceof ReedError)) throw error;
    }
  }
  const names = partNames(stages).get(id) ?? new Map<string, string>();
  return {
    ask,
    rules: made.rules((part) => parts[part]?.value ?? NaN, ask),
    solved,
    stiffness: made.divider && stiffnessOf(solved, parts, made.divider),
    others,
    names: Object.fromEntries(Object.keys(solved.rest).map((q) => [q, names.get(q) ?? q])),
  };
}

function stiffnessOf(
  { rest }: SolvedBias,
  parts: ReturnType<typeof partsAsBias>,
  { lower, base }: { lower: string; base: string },
): number {
  const q = rest[base];
  return q.base / parts[lower].value! / q.baseAmps;
}
