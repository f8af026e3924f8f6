import * as z from 'zod';
import { between } from '@/core/quantity/bounds';

const side = between(0.03, 2, ' m');

/** How a part lies: a coil flat, its axis out of the board, or on its edge; others always lie along. */
export const LYINGS = ['flat', 'edge'] as const;

/** A board that a passive network is built on, seen from above. */
export const boardSchema = z.strictObject({
  widthMetres: side,
  heightMetres: side,
  /** Whether what the coils share counts in what is solved. */
  coupled: z.boolean().default(true),
  /** Where parts lie that were moved: their middles from the upper left corner, and their turn. */
  parts: z
    .array(
      z.strictObject({
        stage: z.string().min(1).max(64),
        part: z.string().min(1).max(40),
        xMetres: between(0, 2, ' m'),
        yMetres: between(0, 2, ' m'),
        lies: z.enum(LYINGS),
        degrees: between(0, 360, '°'),
      }),
    )
    .max(300),
});

export type BoardLayout = z.infer<typeof boardSchema>;
export type PlacedPart = BoardLayout['parts'][number];
