import { ReedError } from '@/core/errors';
import { movedTo, octavesOf, withoutConverter } from '@/core/sheet/controls';
import type { Control } from '@/core/sheet/schema';
import type { Converter } from '@/core/synth/converter';
import { changeControl } from './controls';

export type LawName = 'octaves' | 'proportion' | 'table';

/** Places between the ends that a table begins with. */
const BEGINS = [0.25, 0.5, 0.75];

/** How a control goes from one end of its travel to the other: both ends stay where they are. */
export function setControlLaw(id: string, law: LawName): void {
  changeControl(id, (control) => {
    const rest = withoutConverter(control);
    const [{ from, to }] = control.moves;
    switch (law) {
      case 'octaves': {
        if (control.moves.some((m) => m.from * m.to <= 0))
          throw new ReedError('range', 'What stands at nought at one end has no octaves.');
        const span = { from: 0, to: Math.abs(octavesOf(control)) };
        return { ...control, is: 'volts', span, moves: moving(control, 'by ratio') };
      }
      case 'proportion':
        return { ...rest, is: 'amps', span: { from, to }, moves: moving(control, 'even') };
      case 'table':
        return {
          ...rest,
          moves: control.moves.map((move) => ({
            ...move,
            law: 'by table' as const,
            table: BEGINS.map((at) => ({ at, value: movedTo(move, at) })),
          })),
        };
    }
  });
}

const moving = ({ moves }: Control, law: 'even' | 'by ratio'): Control['moves'] =>
  moves.map(({ table: _, ...move }) => ({ ...move, law }));

/** What of the exponential converter is not ideal; nothing for an ideal one. */
export function setConverter(id: string, converter: Converter | undefined): void {
  changeControl(id, (control) =>
    converter === undefined ? withoutConverter(control) : { ...control, converter },
  );
}

/** A table for a control whose parts all follow it, in the proportion that their ends have. */
export function setControlTable(
  id: string,
  points: readonly { at: number; value: number }[],
): void {
  changeControl(id, (control) => {
    const [first] = control.moves;
    const ends = [points[0], points[points.length - 1]];
    return {
      ...control,
      moves: control.moves.map((move) => {
        const times = first.to === 0 ? 1 : move.to / first.to;
        return {
          ...move,
          from: ends[0].value * times,
          to: ends[1].value * times,
          law: 'by table' as const,
          table: points.slice(1, -1).map(({ at, value }) => ({ at, value: value * times })),
        };
      }),
    };
  });
}
