import type { DrawnSymbol } from '@/core/topologies/drawing';
import { SYMBOL_LENGTH } from '@/core/topologies/drawing';
import styles from './schematic.module.css';

/** Pixels of one grid unit before scaling. */
export const UNIT = 20;

export type ResistorLook = 'box' | 'zigzag';

const LENGTH = SYMBOL_LENGTH * UNIT;

/** The lines of one symbol, drawn from its first pin; vertical ones are turned by the caller. */
export function SymbolLines({
  symbol,
  resistors,
}: {
  symbol: DrawnSymbol;
  resistors: ResistorLook;
}) {
  switch (symbol.kind) {
    case 'resistor':
      return resistors === 'box' ? (
        <>
          <path d={`M0 0H14M${LENGTH - 14} 0H${LENGTH}`} className={styles.line} />
          <rect x={14} y={-8} width={LENGTH - 28} height={16} className={styles.body} />
        </>
      ) : (
        <path
          d={`M0 0H14l4.3 -8 8.7 16 8.7 -16 8.6 16 8.7 -16 8.7 16 4.3 -8H${LENGTH}`}
          className={styles.line}
        />
      );
    case 'capacitor':
      return (
        <path
          d={`M0 0H${LENGTH / 2 - 5}M${LENGTH / 2 - 5} -13V13M${LENGTH / 2 + 5} -13V13M${LENGTH / 2 + 5} 0H${LENGTH}`}
          className={styles.line}
        />
      );
    case 'inductor':
      return (
        <path
          d={`M0 0H14a6.5 6.5 0 0 1 13 0a6.5 6.5 0 0 1 13 0a6.5 6.5 0 0 1 13 0a6.5 6.5 0 0 1 13 0H${LENGTH}`}
          className={styles.line}
        />
      );
    case 'transconductor':
    case 'op-amp':
      return (
        <path d={`M0 ${-0.9 * UNIT}V${2.9 * UNIT}L${LENGTH} ${UNIT}Z`} className={styles.body} />
      );
    case 'ground':
      return <path d="M-14 0H14M-9 6H9M-4 12H4" className={styles.line} />;
    case 'port':
    case 'tap':
      return <circle r={3.5} className={styles.terminal} />;
  }
}
