import { realValues } from '@/core/sheet/real-values';
import { exactValues } from '@/core/sheet/exact';
import type { Drawing } from '@/core/drawing/drawing';
import { grafted, withDrawing, type Graft } from '@/core/sheet/graft';
import { designedAs, drawingOf, drawnParts } from '@/core/sheet/stage';
import { doneBy, edit } from '@/store/sheet-session';
import { withStage } from './within';

/**
 * Change the circuit of a stage.
 *
 * @returns the net, in the changed drawing, of the pin that the next part goes on from
 */
export function graftStage(
  id: string,
  graft: Graft,
  next?: { part: string; pin: string },
): string | undefined {
  let net: string | undefined;
  doneBy('Graft', () =>
    edit((c) =>
      withStage(c, id, (s) => {
        const changed = grafted(s, graft);
        net = next && drawnParts(changed).find((p) => p.id === next.part)?.nets[next.pin];
        return { ...changed, origin: 'hand' };
      }),
    ),
  );
  return net;
}

/** Another drawing of the same circuit: its main output elsewhere, a net with a name, all of it tidied. */
export function redraw(id: string, change: (drawing: Drawing) => Drawing): void {
  edit((c) =>
    withStage(c, id, (s) => withDrawing({ ...s, origin: 'hand' }, change(drawingOf(s)), s.parts)),
  );
}

/** A stage drawn as its topology says again; parts that were put in go. */
export function ungraft(id: string): void {
  edit((c) =>
    withStage(c, id, (s) => {
      const topology = designedAs(s);
      if (!topology || !s.drawing) return s;
      const real = realValues(topology, exactValues(s) ?? {}, c.parts);
      const bare = { ...s };
      delete bare.drawing;
      delete bare.heard;
      const parts = Object.fromEntries(
        Object.entries(real).map(([part, value]) => [
          part,
          s.parts[part] ?? { value, chosen: 'fit' as const },
        ]),
      );
      return { ...bare, parts };
    }),
  );
}
