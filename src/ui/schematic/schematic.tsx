'use client';

import { useMemo, type KeyboardEvent, type ReactNode } from 'react';
import { boundsOf, SYMBOL_LENGTH, type Drawing, type DrawnSymbol } from '@/core/topologies/drawing';
import { readNets } from '@/core/topologies/nets';
import { SymbolLines, UNIT, type ResistorLook } from './symbols';
import styles from './schematic.module.css';

export interface PartLabel {
  name: string;
  /** What stands beside the symbol; op-amps have none. */
  value?: string;
  /** A quiet third line. */
  note?: string;
}

export interface SchematicProps {
  drawing: Drawing;
  labels: Readonly<Record<string, PartLabel>>;
  resistors: ResistorLook;
  selected: string | null;
  /** Part being edited, and the field to show in place of its value. */
  editing: string | null;
  editor: (id: string) => ReactNode;
  onSelect: (id: string) => void;
  onEdit: (id: string) => void;
  onPoint: (id: string | null) => void;
  /** Pixels of a grid unit on screen. */
  scale: number;
  title: string;
}

type PartSymbol = Extract<DrawnSymbol, { id: string }>;

const MARGIN = { left: 1.4, right: 1.4, top: 2.1, bottom: 2.4 };

/** Size of a drawing with room for its labels, in grid units. */
export function schematicSize(drawing: Drawing): { width: number; height: number } {
  const { left, top, right, bottom } = boundsOf(drawing);
  return {
    width: right - left + MARGIN.left + MARGIN.right,
    height: bottom - top + MARGIN.top + MARGIN.bottom,
  };
}

/** A drawing with its values, each edited where it stands. */
export function Schematic(props: SchematicProps) {
  const { drawing, labels, resistors, selected, editing, editor, scale, title } = props;
  const dots = useMemo(() => readNets(drawing).dots, [drawing]);
  const bounds = boundsOf(drawing);
  const { width, height } = schematicSize(drawing);
  const [originX, originY] = [(bounds.left - MARGIN.left) * UNIT, (bounds.top - MARGIN.top) * UNIT];
  const edited = drawing.symbols.find((s): s is PartSymbol => 'id' in s && s.id === editing);
  const place = edited && labelPlace(edited);
  return (
    <div className={styles.frame} style={{ width: width * scale, height: height * scale }}>
      <svg
        width={width * scale}
        height={height * scale}
        viewBox={`${originX} ${originY} ${width * UNIT} ${height * UNIT}`}
        className={styles.svg}
        role="group"
        aria-label={title}
        data-schematic
      >
        {drawing.wires.map((wire, i) => (
          <path
            key={i}
            d={wire.map(([x, y], k) => `${k === 0 ? 'M' : 'L'}${x * UNIT} ${y * UNIT}`).join('')}
            className={styles.line}
            fill="none"
          />
        ))}
        {drawing.symbols.map((symbol, i) => (
          <Placed
            key={i}
            symbol={symbol}
            resistors={resistors}
            label={'id' in symbol ? labels[symbol.id] : undefined}
            selected={'id' in symbol && symbol.id === selected}
            hideValue={'id' in symbol && symbol.id === editing}
            onSelect={props.onSelect}
            onEdit={props.onEdit}
            onPoint={props.onPoint}
          />
        ))}
        {dots.map(([x, y]) => (
          <circle key={`${x},${y}`} cx={x * UNIT} cy={y * UNIT} r={3} className={styles.dot} />
        ))}
      </svg>
      {edited && place && (
        <div
          className={styles.editor}
          style={{
            left: ((place.x - originX) / UNIT) * scale,
            top: ((place.valueY - originY) / UNIT) * scale,
            transform: `translate(${place.anchor === 'middle' ? '-50%' : place.anchor === 'end' ? '-100%' : '0'}, -70%)`,
          }}
        >
          {editor(edited.id)}
        </div>
      )}
    </div>
  );
}

interface PlacedProps extends Pick<
  SchematicProps,
  'resistors' | 'onSelect' | 'onEdit' | 'onPoint'
> {
  symbol: DrawnSymbol;
  label: PartLabel | undefined;
  selected: boolean;
  hideValue: boolean;
}

function Placed({
  symbol,
  label,
  selected,
  hideValue,
  resistors,
  onSelect,
  onEdit,
  onPoint,
}: PlacedProps) {
  const [x, y] = [symbol.at[0] * UNIT, symbol.at[1] * UNIT];
  const turned = 'toward' in symbol && symbol.toward === 'down' ? ' rotate(90)' : '';
  const lines = (
    <g transform={`translate(${x} ${y})${turned}`}>
      <SymbolLines symbol={symbol} resistors={resistors} />
    </g>
  );
  if (symbol.kind === 'ground') return lines;
  if (symbol.kind === 'port' || symbol.kind === 'tap') {
    return (
      <>
        {lines}
        <text x={x} y={y - 11} textAnchor="middle" className={styles.portName}>
          {symbol.kind === 'port' ? symbol.net : symbol.name}
        </text>
      </>
    );
  }
  const { id } = symbol;
  const place = labelPlace(symbol);
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
        <HitArea symbol={symbol} />
        {lines}
      </g>
      <text x={place.x} y={place.nameY} textAnchor={place.anchor} className={styles.name}>
        {label?.name}
      </text>
      {editable && !hideValue && (
        <text x={place.x} y={place.valueY} textAnchor={place.anchor} className={styles.value}>
          {label.value}
        </text>
      )}
      {label?.note && !hideValue && (
        <text x={place.x} y={place.noteY} textAnchor={place.anchor} className={styles.note}>
          {label.note}
        </text>
      )}
    </g>
  );
}

function isAmplifier(
  symbol: PartSymbol,
): symbol is Extract<PartSymbol, { kind: 'op-amp' | 'transconductor' }> {
  return symbol.kind === 'op-amp' || symbol.kind === 'transconductor';
}

/** An invisible target larger than the lines, so that pointing need not be exact. */
function HitArea({ symbol }: { symbol: PartSymbol }) {
  const [x, y] = [symbol.at[0] * UNIT, symbol.at[1] * UNIT];
  const length = SYMBOL_LENGTH * UNIT;
  if (isAmplifier(symbol))
    return <rect x={x} y={y - UNIT} width={length} height={4 * UNIT} className={styles.hit} />;
  return symbol.toward === 'right' ? (
    <rect x={x + 6} y={y - 30} width={length - 12} height={62} className={styles.hit} />
  ) : (
    <rect
      x={symbol.label === 'left' ? x - 56 : x - 16}
      y={y + 6}
      width={72}
      height={length - 12}
      className={styles.hit}
    />
  );
}

interface LabelPlace {
  x: number;
  anchor: 'start' | 'middle' | 'end';
  nameY: number;
  valueY: number;
  noteY: number;
}

/** Where a part's name, value and note stand. */
function labelPlace(symbol: PartSymbol): LabelPlace {
  const [x, y] = [symbol.at[0] * UNIT, symbol.at[1] * UNIT];
  const middle = (SYMBOL_LENGTH * UNIT) / 2;
  if (isAmplifier(symbol))
    return {
      x: x + middle + 6,
      anchor: 'start',
      nameY: y + 3.05 * UNIT,
      valueY: y + 3.05 * UNIT,
      noteY: y + 3.05 * UNIT,
    };
  if (symbol.toward === 'down') {
    const side = symbol.label === 'left' ? -1 : 1;
    return {
      x: x + side * 20,
      anchor: side < 0 ? 'end' : 'start',
      nameY: y + middle - 9,
      valueY: y + middle + 7,
      noteY: y + middle + 21,
    };
  }
  const label = symbol.label;
  const over = symbol.kind === 'capacitor' ? 19 : 14;
  if (label === 'above')
    return {
      x: x + middle,
      anchor: 'middle',
      nameY: y - over - 16,
      valueY: y - over,
      noteY: y - over - 30,
    };
  return {
    x: x + middle,
    anchor: 'middle',
    nameY: y - over,
    valueY: y + over + 12,
    noteY: y + over + 26,
  };
}
