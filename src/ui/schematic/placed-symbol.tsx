'use client';

import { memo, type KeyboardEvent } from 'react';
import type { PartLabel, PlacedText } from '@/core/drawing/labels';
import { isAmplifier, SYMBOL_LENGTH, type DrawnSymbol } from '@/core/topologies/drawing';
import { SymbolLines, UNIT, type ResistorLook } from './symbols';
import styles from './schematic.module.css';

export interface PlacedSymbolProps {
  symbol: DrawnSymbol;
  /** Pixels of a grid unit. */
  scale: number;
  resistors: ResistorLook;
  label: PartLabel | undefined;
  /** Where its words stand; none where there is no room for them. */
  words: readonly PlacedText[] | undefined;
  selected: boolean;
  editing: boolean;
  onSelect: (id: string) => void;
  onEdit: (id: string) => void;
  onPoint: (id: string | null) => void;
}

/** One symbol with its words. Drawn again only when it moves, or when what it says changes. */
export const PlacedSymbol = memo(function PlacedSymbol(props: PlacedSymbolProps) {
  const { symbol, scale, resistors, label, words, selected, editing } = props;
  const { onSelect, onEdit, onPoint } = props;
  const [x, y] = [symbol.at[0] * scale, symbol.at[1] * scale];
  const turned = 'toward' in symbol && symbol.toward === 'down' ? ' rotate(90)' : '';
  const lines = (
    <>
      <g transform={`translate(${x} ${y})${turned} scale(${scale / UNIT})`}>
        <SymbolLines symbol={symbol} resistors={resistors} />
      </g>
      {isAmplifier(symbol) && scale >= 8 && (
        <>
          <text x={x + 0.45 * scale} y={y + 5} className={styles.sign}>
            {symbol.upper === 'plus' ? '+' : '−'}
          </text>
          <text x={x + 0.45 * scale} y={y + 2 * scale + 5} className={styles.sign}>
            {symbol.upper === 'plus' ? '−' : '+'}
          </text>
          {symbol.kind === 'transconductor' && (
            <text x={x + 1.4 * scale} y={y + scale + 5} className={styles.sign}>
              g
            </text>
          )}
        </>
      )}
    </>
  );
  if (!('id' in symbol)) return lines;
  const { id } = symbol;
  const editable = label?.value !== undefined;
  const act = () => {
    onSelect(id);
    onEdit(id);
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    act();
  };
  // The words stand outside the button, whose name says them in a sentence.
  return (
    <g
      className={selected ? `${styles.part} ${styles.selected}` : styles.part}
      onClick={act}
      onPointerEnter={() => onPoint(id)}
      onPointerLeave={() => onPoint(null)}
    >
      <g
        className={styles.button}
        role="button"
        tabIndex={0}
        aria-label={
          editable
            ? `${label.name}, ${label.value}: change value`
            : `${label?.name ?? id}: choose op-amp`
        }
        onKeyDown={onKey}
        onFocus={() => onPoint(id)}
        onBlur={() => onPoint(null)}
      >
        <HitArea symbol={symbol} scale={scale} />
        {lines}
      </g>
      {words?.map((place) =>
        editing && place.role !== 'name' ? null : (
          <text
            key={place.role}
            x={place.x}
            y={place.y}
            textAnchor={place.anchor}
            className={styles[place.role]}
          >
            {wordOf(place, label)}
          </text>
        ),
      )}
    </g>
  );
});

/** What a placed line says now; name and value may stand on one line. */
function wordOf({ role, text }: PlacedText, label: PartLabel | undefined): string | undefined {
  if (role === 'value' && label?.value !== undefined)
    return text.length > label.value.length ? `${label.name} ${label.value}` : label.value;
  return role === 'note' ? label?.note : label?.name;
}

type PartSymbol = Extract<DrawnSymbol, { id: string }>;

/** An invisible target larger than the lines, so that pointing need not be exact. */
function HitArea({ symbol, scale }: { symbol: PartSymbol; scale: number }) {
  const [x, y] = [symbol.at[0] * scale, symbol.at[1] * scale];
  const length = SYMBOL_LENGTH * scale;
  if (isAmplifier(symbol))
    return <rect x={x} y={y - scale} width={length} height={4 * scale} className={styles.hit} />;
  const across = Math.max(10, 0.8 * scale);
  const [along, from] = [length - 0.6 * scale, 0.3 * scale];
  return symbol.toward === 'right' ? (
    <rect x={x + from} y={y - across} width={along} height={2 * across} className={styles.hit} />
  ) : (
    <rect x={x - across} y={y + from} width={2 * across} height={along} className={styles.hit} />
  );
}
