import { isPart, type DrawnSymbol } from '@/core/drawing/drawing';
import { partKindOf } from '@/core/parts';
import { quarterTurns } from '@/core/parts/geometry';
import { UNIT, type ResistorLook, type Stroke } from '@/core/parts/part-kind';
import styles from './schematic.module.css';

const CLASS = { paper: styles.body, ink: styles.ink } as const;

/** The lines of one symbol, drawn about its first pin at `UNIT` pixels a grid unit. */
export function SymbolLines({
  symbol,
  resistors,
}: {
  symbol: DrawnSymbol;
  resistors: ResistorLook;
}) {
  if (isPart(symbol)) {
    const its = partKindOf(symbol.kind).symbol;
    const leads = its.pins.flatMap((pin): Stroke[] =>
      pin.optional && symbol.with?.includes(pin.name)
        ? [
            {
              d: `M${pin.at.map((v) => v * UNIT).join(' ')}L${pin.optional.map((v) => v * UNIT).join(' ')}`,
            },
          ]
        : [],
    );
    const flip = symbol.mirrored ? ` translate(0 ${2 * its.axis * UNIT}) scale(1 -1)` : '';
    return (
      <g transform={`rotate(${90 * quarterTurns(symbol.toward ?? 'right')})${flip}`}>
        {[...leads, ...its.strokes(resistors)].map(({ d, fill, dashed }) => (
          <path
            key={d}
            d={d}
            className={fill ? CLASS[fill] : styles.line}
            strokeDasharray={dashed ? '4 4' : undefined}
          />
        ))}
      </g>
    );
  }
  switch (symbol.kind) {
    case 'ground':
      return <path d="M-14 0H14M-9 6H9M-4 12H4" className={styles.line} />;
    case 'port':
      return <circle r={3.5} className={styles.terminal} />;
    case 'name':
      return null;
  }
}
