'use client';

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { LayerLook } from './layers';
import type { PlotBox, Scales } from './scales';
import styles from './cursor.module.css';

export interface CursorRow {
  name: string;
  look: LayerLook;
  levelDb: number;
  /** Absent where only the level is known. */
  phaseDegrees?: number;
  /** What stands in the place of the level, where it is something else. */
  own?: string;
  /** What the source's voltage becomes, where that is told. */
  volts?: number;
  /** Group delay, where the picture shows it. */
  delaySeconds?: number;
}

export interface CursorProps {
  scales: Scales;
  box: PlotBox;
  fromHz: number;
  toHz: number;
  atHz: number | null;
  rows: readonly CursorRow[];
  mark: DecimalMark;
  onMove: (hz: number | null) => void;
  /** Enter, or a double click: pin what is under the cursor. */
  onPin: (hz: number) => void;
}

/** A line that reads every layer at one frequency; follows the pointer, the arrow keys, or a reading. */
export function Cursor({
  scales,
  box,
  fromHz,
  toHz,
  atHz,
  rows,
  mark,
  onMove,
  onPin,
}: CursorProps) {
  const host = useRef<HTMLDivElement>(null);
  const hzAt = (event: PointerEvent) => {
    const left = host.current!.getBoundingClientRect().left;
    return scales.valueAt(box.x + Math.min(Math.max(event.clientX - left, 0), box.width));
  };
  const onKey = (event: KeyboardEvent) => {
    const here = atHz ?? Math.sqrt(fromHz * toHz);
    const step = event.shiftKey ? 2 ** (1 / 3) : 2 ** (1 / 48);
    if (event.key === 'ArrowRight') onMove(Math.min(toHz, here * step));
    else if (event.key === 'ArrowLeft') onMove(Math.max(fromHz, here / step));
    else if (event.key === 'Enter') onPin(here);
    else if (event.key === 'Escape') onMove(null);
    else return;
    event.preventDefault();
  };
  const visible = atHz !== null && atHz >= fromHz && atHz <= toHz;
  const x = visible ? scales.x(atHz) - box.x : 0;
  const label = visible
    ? `${formatQuantity(atHz, 'hertz', { digits: 4, unit: true, mark })}`
    : 'no cursor';
  return (
    <div
      ref={host}
      className={styles.host}
      style={{ left: box.x, top: box.y, width: box.width, height: box.height }}
      role="slider"
      tabIndex={0}
      aria-label="Cursor frequency"
      aria-valuemin={fromHz}
      aria-valuemax={toHz}
      aria-valuenow={atHz ?? Math.sqrt(fromHz * toHz)}
      aria-valuetext={
        visible ? [label, ...rows.map((r) => `${r.name} ${levelWords(r, mark)}`)].join(', ') : label
      }
      onPointerMove={(e) => onMove(hzAt(e))}
      onDoubleClick={() => atHz !== null && onPin(atHz)}
      onKeyDown={onKey}
    >
      {visible && (
        <>
          <div className={styles.line} style={{ transform: `translateX(${x}px)` }} />
          <div
            className={styles.card}
            style={x > box.width / 2 ? { right: box.width - x + 12 } : { left: x + 12 }}
          >
            <div className={styles.frequency}>{label}</div>
            {rows.map((row) => (
              <div key={row.name} className={styles.row}>
                <span className={styles[row.look]}>{row.name}</span>
                <span>{levelWords(row, mark)}</span>
                <span>
                  {row.volts !== undefined &&
                    formatQuantity(row.volts, 'volts', { unit: true, digits: 3, mark })}
                </span>
                <span>
                  {row.delaySeconds !== undefined
                    ? formatQuantity(row.delaySeconds, 'seconds', { unit: true, digits: 3, mark })
                    : row.phaseDegrees !== undefined &&
                      `${formatFixed(row.phaseDegrees, 0, mark)}°`}
                </span>
              </div>
            ))}
          </div>
        </>
      )}
    </div>
  );
}

const levelWords = ({ own, levelDb }: CursorRow, mark: DecimalMark): string =>
  own ?? `${formatFixed(levelDb, 2, mark)} dB`;
