'use client';

import { memo, type KeyboardEvent } from 'react';
import type { PartLabel, PlacedText } from '@/core/drawing/labels';
import {
  isPart,
  onPaper,
  type DrawnSymbol,
  type PartOnPaper,
  type Point,
} from '@/core/drawing/drawing';
import { bodyOf } from '@/core/drawing/shapes';
import { partKindOf } from '@/core/parts';
import { UNIT, type ResistorLook } from '@/core/parts/part-kind';
import { SymbolLines } from './symbols';
import { useDrag } from './use-drag';
import styles from './schematic.module.css';

export interface PlacedSymbolProps extends Partial<PartLabel> {
  symbol: DrawnSymbol;
  /** Pixels of a grid unit. */
  scale: number;
  resistors: ResistorLook;
  /** Where its words stand; none where there is no room for them. */
  words: readonly PlacedText[] | undefined;
  selected: boolean;
  editing: boolean;
  /** Something beside the drawing points at it. */
  lit?: boolean;
  onSelect: (id: string) => void;
  onEdit: (id: string, hasValue: boolean) => void;
  onPoint: (id: string | null) => void;
  /** Told by how many steps of the grid a part is to be moved; absent where none can be. */
  onMove?: (id: string, by: Point) => void;
}

/** One symbol with its words. Drawn again only when it moves, or when what it says changes. */
export const PlacedSymbol = memo(function PlacedSymbol(props: PlacedSymbolProps) {
  const { symbol, scale, resistors, name, value, words, selected, editing, lit } = props;
  const { onSelect, onEdit, onPoint, onMove } = props;
  const { shift, handlers } = useDrag(scale, (by) => 'id' in symbol && onMove?.(symbol.id, by));
  const [x, y] = [symbol.at[0] * scale, symbol.at[1] * scale];
  const lines = (
    <>
      <g transform={`translate(${x} ${y}) scale(${scale / UNIT})`}>
        <SymbolLines symbol={symbol} resistors={resistors} />
      </g>
      {isPart(symbol) && scale >= 8 && <Marks symbol={symbol} scale={scale} />}
    </>
  );
  if (!isPart(symbol)) return lines;
  const { id } = symbol;
  const editable = value !== undefined;
  const act = () => {
    onSelect(id);
    onEdit(id, editable);
  };
  const onKey = (event: KeyboardEvent) => {
    const step = event.altKey ? STEPS[event.key] : undefined;
    if (step && onMove) {
      event.preventDefault();
      onMove(id, step);
      return;
    }
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    act();
  };
  // The words stand outside the button, whose name says them in a sentence.
  return (
    <g
      className={[styles.part, selected && styles.selected, lit && styles.lit]
        .filter(Boolean)
        .join(' ')}
      transform={shift ? `translate(${shift[0] * scale} ${shift[1] * scale})` : undefined}
      onClick={act}
      {...(onMove ? { ...handlers, 'data-movable': true } : {})}
      onPointerEnter={() => onPoint(id)}
      onPointerLeave={() => onPoint(null)}
    >
      <g
        className={styles.button}
        role="button"
        tabIndex={0}
        aria-label={
          editable
            ? `${name}, ${value}: change value`
            : `${name ?? id}: choose ${partKindOf(symbol.kind).noun}`
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
            {wordOf(place, props)}
          </text>
        ),
      )}
    </g>
  );
});

const STEPS: Readonly<Record<string, Point>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** What a placed line says now; name and value may stand on one line. */
function wordOf(
  { role, text }: PlacedText,
  { name, value, note }: Partial<PartLabel>,
): string | undefined {
  if (role === 'value' && value !== undefined)
    return text.length > value.length ? `${name} ${value}` : value;
  return role === 'note' ? note : name;
}

/** Signs within a symbol, upright however it is turned. */
function Marks({ symbol, scale }: { symbol: PartOnPaper; scale: number }) {
  const its = partKindOf(symbol.kind).symbol;
  return its.marks?.map(({ text, at }) => {
    const [mx, my] = onPaper(symbol, at, its);
    return (
      <text
        key={text}
        x={mx * scale}
        y={my * scale + 5}
        textAnchor="middle"
        className={styles.sign}
      >
        {text}
      </text>
    );
  });
}

/** An invisible target larger than the lines, so that pointing need not be exact. */
function HitArea({ symbol, scale }: { symbol: PartOnPaper; scale: number }) {
  const { left, top, right, bottom } = bodyOf(symbol, scale).box;
  // Bodies are narrow across; a finger is not.
  const [wide, high] = [Math.max(20, right - left), Math.max(20, bottom - top)];
  const room = 0.3 * scale;
  return (
    <rect
      x={(left + right - wide) / 2 - room}
      y={(top + bottom - high) / 2 - room}
      width={wide + 2 * room}
      height={high + 2 * room}
      className={styles.hit}
    />
  );
}
