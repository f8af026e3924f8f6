'use client';

import { Button } from 'antd';
import { Maximize, ZoomIn, ZoomOut } from 'lucide-react';
import {
  memo,
  useMemo,
  useRef,
  type Dispatch,
  type ReactNode,
  type RefObject,
  type SetStateAction,
} from 'react';
import {
  fitLabels,
  placeLabels,
  type Layout,
  type PartLabel,
  type PlacedText,
} from '@/core/drawing/labels';
import { isPart, type Drawing, type Point } from '@/core/drawing/drawing';
import { readNets } from '@/core/drawing/nets';
import { useSize } from '../chart/use-size';
import { PlacedSymbol } from './placed-symbol';
import type { ResistorLook } from '@/core/parts/part-kind';
import { FITTED, STEP, useViewport, zoomed, type Viewport } from './use-viewport';
import styles from './schematic.module.css';

export interface SchematicProps {
  drawing: Drawing;
  labels: Readonly<Record<string, PartLabel>>;
  resistors: ResistorLook;
  selected: string | null;
  /** Part being edited, and the field to show in place of its value. */
  editing: string | null;
  editor: (id: string) => ReactNode;
  onSelect: (id: string) => void;
  /** @param hasValue whether it has a value that is edited in place */
  onEdit: (id: string, hasValue: boolean) => void;
  onPoint: (id: string | null) => void;
  onMove?: (id: string, by: Point) => void;
  title: string;
  /** A point of the drawing that is being spoken of. */
  marked?: Point | null;
  /** Parts that something beside the drawing points at. */
  lit?: readonly string[];
}

/** A drawing with its values, each edited where it stands; it fits its room, and can be looked into. */
export const Schematic = memo(function Schematic(props: SchematicProps) {
  const [host, size] = useSize<HTMLDivElement>();
  return (
    <div ref={host} className={styles.room}>
      {size && size.width > 80 && size.height > 60 && (
        <InRoom {...props} width={size.width} height={size.height} />
      )}
    </div>
  );
});

const EDGE = 6;

function InRoom(props: SchematicProps & { width: number; height: number }) {
  const { drawing, labels, resistors, selected, editing, editor, title, width, height } = props;
  const frame = useRef<HTMLDivElement>(null);
  const { view, setView, onKeyDown } = useViewport(frame, drawing);
  const dots = useMemo(() => readNets(drawing).dots, [drawing]);
  // Where words stand depends on how long they are, not on what they say.
  const lengths = JSON.stringify(
    Object.entries(labels).map(([id, l]) => [id, l.name, l.value?.length, l.note?.length]),
  );
  const fitted = useMemo(
    () =>
      fitLabels(drawing, ofLengths(lengths), {
        width: width - 2 * EDGE,
        height: height - 2 * EDGE,
      }),
    [drawing, lengths, width, height],
  );
  const scale = fitted.scale * view.zoom;
  const layout = useMemo(
    () => (view.zoom === 1 ? fitted.layout : placeLabels(drawing, ofLengths(lengths), scale)),
    [drawing, lengths, scale, view.zoom, fitted],
  );
  const { left, top, right, bottom } = fitted.layout.extent;
  const x = view.x + ((width - right - left) / 2) * view.zoom;
  const y = view.y + ((height - bottom - top) / 2) * view.zoom;
  const place = editing === null ? undefined : valuePlace(layout, drawing, editing, scale);
  return (
    <>
      <div
        ref={frame}
        className={view.zoom > 1 ? `${styles.frame} ${styles.zoomed}` : styles.frame}
        onKeyDown={onKeyDown}
      >
        <svg
          width={width}
          height={height}
          className={styles.svg}
          role="group"
          aria-label={title}
          data-schematic
        >
          <g transform={`translate(${x} ${y})`}>
            {drawing.wires.map((wire, i) => (
              <path
                key={i}
                d={wire
                  .map(([wx, wy], k) => `${k === 0 ? 'M' : 'L'}${wx * scale} ${wy * scale}`)
                  .join('')}
                className={styles.line}
              />
            ))}
            {drawing.symbols.map((symbol, i) => (
              <PlacedSymbol
                key={'id' in symbol ? symbol.id : i}
                symbol={symbol}
                scale={scale}
                resistors={resistors}
                {...('id' in symbol ? labels[symbol.id] : undefined)}
                words={'id' in symbol ? layout.parts.get(symbol.id) : undefined}
                selected={'id' in symbol && symbol.id === selected}
                editing={'id' in symbol && symbol.id === editing}
                lit={'id' in symbol && props.lit?.includes(symbol.id)}
                onSelect={props.onSelect}
                onEdit={props.onEdit}
                onPoint={props.onPoint}
                onMove={props.onMove}
              />
            ))}
            {layout.ports.map((text) => (
              <text
                key={`${text.x} ${text.y}`}
                x={text.x}
                y={text.y}
                textAnchor={text.anchor}
                className={styles.port}
              >
                {text.text}
              </text>
            ))}
            {props.marked && (
              <circle
                cx={props.marked[0] * scale}
                cy={props.marked[1] * scale}
                r={7}
                className={styles.marked}
              />
            )}
            {scale > 5 &&
              dots.map(([dx, dy]) => (
                <circle
                  key={`${dx},${dy}`}
                  cx={dx * scale}
                  cy={dy * scale}
                  r={Math.min(3, scale / 5)}
                  className={styles.dot}
                />
              ))}
          </g>
        </svg>
        {editing !== null && place && (
          <div
            className={styles.editor}
            style={{
              left: Math.min(width - 90, Math.max(2, place.x + x)),
              top: Math.min(height - 34, Math.max(2, place.y + y - 20)),
              transform: `translateX(${place.anchor === 'middle' ? '-50%' : place.anchor === 'end' ? '-100%' : '0'})`,
            }}
          >
            {editor(editing)}
          </div>
        )}
      </div>
      <Tools whole={view.zoom === 1} room={frame} change={setView} />
    </>
  );
}

interface ToolsProps {
  /** Whether all of the drawing is seen. */
  whole: boolean;
  room: RefObject<HTMLElement | null>;
  change: Dispatch<SetStateAction<Viewport>>;
}

const Tools = memo(function Tools({ whole, room, change }: ToolsProps) {
  return (
    <div className={styles.tools} role="toolbar" aria-label="Size of the drawing">
      <Button
        size="small"
        type="text"
        aria-label="Smaller"
        title="Smaller (−)"
        disabled={whole}
        icon={<ZoomOut size={14} />}
        onClick={() => change(zoomed(room.current!, 1 / STEP))}
      />
      <Button
        size="small"
        type="text"
        aria-label="Fit the drawing"
        title="Fit (0)"
        disabled={whole}
        icon={<Maximize size={14} />}
        onClick={() => change(FITTED)}
      />
      <Button
        size="small"
        type="text"
        aria-label="Larger"
        title="Larger (+); the wheel does the same"
        icon={<ZoomIn size={14} />}
        onClick={() => change(zoomed(room.current!, STEP))}
      />
    </div>
  );
});

/** Labels of the given lengths: what they say is put in when they are drawn. */
function ofLengths(lengths: string): Record<string, PartLabel> {
  const entries = JSON.parse(lengths) as [string, string, number?, number?][];
  return Object.fromEntries(
    entries.map(([id, name, value, note]) => [
      id,
      {
        name,
        // A null stands where there was no text.
        ...(typeof value === 'number' ? { value: '0'.repeat(value) } : {}),
        ...(typeof note === 'number' ? { note: '0'.repeat(note) } : {}),
      },
    ]),
  );
}

/** Where a part's value is edited: on its words, or in its middle where it has none. */
function valuePlace(
  layout: Layout,
  drawing: Drawing,
  id: string,
  scale: number,
): Pick<PlacedText, 'x' | 'y' | 'anchor'> | undefined {
  const words = layout.parts.get(id);
  const value = words?.find((w) => w.role === 'value') ?? words?.[0];
  if (value) return value;
  const symbol = drawing.symbols.find((s) => isPart(s) && s.id === id);
  return symbol && { x: (symbol.at[0] + 2) * scale, y: symbol.at[1] * scale, anchor: 'middle' };
}
