import { useEffect, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { ReedError } from '@/core/errors';
import type { Evaluation } from '@/core/sheet/evaluate';
import type { LayerTrace } from '@/core/sheet/solved-way';
import { splitComposedId } from '@/core/sheet/path-drawing';
import type { Sheet } from '@/core/sheet/schema';
import { valuesOf } from '@/core/sheet/stage';
import { useSolvedSheet } from '@/store/open-library';
import { engine } from '@/workers/engine';
import { followOpenSheet, useEvaluations } from './evaluations';

/** Keep the evaluation of the open sheet up to date as long as the caller is shown. */
export function useFollowing(): void {
  useEffect(followOpenSheet, []);
}

/**
 * Something of the evaluation of the open sheet: who asks for it is drawn again when just that
 * changes. Results that stand on nothing that changed are the same objects; what is made here is
 * compared one level deep.
 */
export function useEvaluated<T>(select: (evaluation: Evaluation | null) => T): T {
  return useEvaluations(useShallow((s) => select(s.evaluation)));
}

/** Curves of the built path with the pointed part 10 % lower and higher. */
export function usePointedVariation(open: Sheet | null, composed: string | null): LayerTrace[] {
  const sheet = useSolvedSheet(open);
  const [found, setFound] = useState<{ sheet: Sheet; part: string; traces: LayerTrace[] } | null>(
    null,
  );
  useEffect(() => {
    if (!sheet || !composed) return;
    const stop = new AbortController();
    const asked = variationOf(sheet, composed, stop.signal);
    if (!asked) return;
    asked
      .then((traces) => {
        if (!stop.signal.aborted) setFound({ sheet, part: composed, traces });
      })
      .catch((error: unknown) => {
        // A part that cannot be moved simply shows nothing; being overtaken is no failure.
        if (!(error instanceof ReedError)) throw error;
      });
    return () => stop.abort();
  }, [sheet, composed]);
  return found && found.sheet === sheet && found.part === composed ? found.traces : NONE;
}

const NONE: LayerTrace[] = [];

/** What is pointed at is a part, or a control by this and its id. */
export const CONTROL = 'control:';
/** Places of a control's travel that are shown. */
const TRAVEL = [0, 0.25, 0.5, 0.75, 1];

function variationOf(
  sheet: Sheet,
  pointed: string,
  signal: AbortSignal,
): Promise<LayerTrace[]> | undefined {
  if (pointed.startsWith(CONTROL))
    return engine().run(
      'variation',
      { sheet, control: pointed.slice(CONTROL.length), places: TRAVEL },
      { signal },
    );
  const { stageId, part } = splitComposedId(pointed);
  const stage = sheet.ways[0].stages.find((s) => s.id === stageId);
  if (!stage || !(part in valuesOf(stage))) return undefined;
  return engine().run('variation', { sheet, stageId, part, factors: [0.9, 1.1] }, { signal });
}
