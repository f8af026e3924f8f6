import { isPart, type DrawnSymbol } from '@/core/drawing/drawing';
import { GROUND_STROKE, PORT_DOT, strokesOf, turnOf } from '@/core/drawing/strokes';
import type { ResistorLook } from '@/core/parts/part-kind';
import styles from './schematic.module.css';

const CLASS = { paper: styles.body, ink: styles.ink } as const;

/** The lines of one symbol, drawn about its first pin. */
export function SymbolLines({
  symbol,
  resistors,
}: {
  symbol: DrawnSymbol;
  resistors: ResistorLook;
}) {
  if (isPart(symbol)) {
    return (
      <g transform={turnOf(symbol)}>
        {strokesOf(symbol, resistors).map(({ d, fill, dashed }) => (
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
      return <path d={GROUND_STROKE} className={styles.line} />;
    case 'port':
      return <circle r={PORT_DOT} className={styles.terminal} />;
    case 'name':
      return null;
  }
}
