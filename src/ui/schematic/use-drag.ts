import { useState, type MouseEvent, type PointerEvent } from 'react';
import type { Point } from '@/core/drawing/drawing';

/** A press that moves no further than this is a click, pixels. */
const STILL = 4;

/**
 * Dragging over a grid: how many steps the pointer has gone, and what it comes to when it is let go.
 *
 * @param scale pixels of a step
 * @param onDrop not called where it comes back to where it began
 */
export function useDrag(scale: number, onDrop: (by: Point) => void) {
  const [from, setFrom] = useState<Point | null>(null);
  const [shift, setShift] = useState<Point | null>(null);
  const [dropped, setDropped] = useState(false);
  const handlers = {
    onPointerDown(event: PointerEvent) {
      if (event.button !== 0) return;
      // The pointer leaves the thin lines of a part at once, and stays the part's.
      event.currentTarget.setPointerCapture(event.pointerId);
      setFrom([event.clientX, event.clientY]);
      setDropped(false);
    },
    onPointerMove(event: PointerEvent) {
      if (!from) return;
      const [dx, dy] = [event.clientX - from[0], event.clientY - from[1]];
      if (!shift && Math.hypot(dx, dy) <= STILL) return;
      setShift([Math.round(dx / scale), Math.round(dy / scale)]);
    },
    onPointerUp() {
      setFrom(null);
      setShift(null);
      if (!shift) return;
      setDropped(true);
      if (shift[0] !== 0 || shift[1] !== 0) onDrop(shift);
    },
    onPointerCancel() {
      setFrom(null);
      setShift(null);
    },
    /** The click that ends a drag is none. */
    onClickCapture(event: MouseEvent) {
      if (dropped) event.stopPropagation();
      setDropped(false);
    },
  };
  return { shift, handlers };
}
