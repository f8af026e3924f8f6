import { useEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';

/** How a drawing lies in its room: so many times its fitting size, shifted by so many pixels. */
export interface Viewport {
  zoom: number;
  x: number;
  y: number;
}

export const FITTED: Viewport = { zoom: 1, x: 0, y: 0 };
const MOST = 12;
/** A press that moves no further than this is a click, pixels. */
const STILL = 4;
export const STEP = 1.25;

const held = (zoom: number) => Math.min(MOST, Math.max(1, zoom));

/** The viewport zoomed about a point of the room, which stays where it is. */
export function zoomAbout(view: Viewport, factor: number, px: number, py: number): Viewport {
  const zoom = held(view.zoom * factor);
  if (zoom === 1) return FITTED;
  const f = zoom / view.zoom;
  return { zoom, x: px - (px - view.x) * f, y: py - (py - view.y) * f };
}

/** The change that zooms about the middle of a room. */
export const zoomed =
  ({ clientWidth, clientHeight }: HTMLElement, factor: number) =>
  (view: Viewport): Viewport =>
    zoomAbout(view, factor, clientWidth / 2, clientHeight / 2);

/**
 * Zooming and panning of whatever lies in a room: by wheel, by one finger or two, and by keys. A
 * drawing that fits is not moved about.
 *
 * @param what starts again from the fitting size when it changes
 */
export function useViewport(host: RefObject<HTMLElement | null>, what: unknown) {
  const [view, setView] = useState<Viewport>(FITTED);
  const [shown, setShown] = useState(what);
  if (shown !== what) {
    setShown(what);
    setView(FITTED);
  }
  const dragged = useRef(false);

  useEffect(() => {
    const element = host.current!;
    const pointers = new Map<number, { x: number; y: number }>();
    let moved = 0;
    const place = (event: { clientX: number; clientY: number }) => {
      const box = element.getBoundingClientRect();
      return { x: event.clientX - box.left, y: event.clientY - box.top };
    };
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const { x, y } = place(event);
      // A notch of a wheel is about 100; a touchpad gives many small steps.
      setView((v) => zoomAbout(v, Math.exp(-event.deltaY / 400), x, y));
    };
    const onDown = (event: PointerEvent) => {
      // A part that can be moved is not the paper.
      if (event.target instanceof Element && event.target.closest('[data-movable]')) return;
      if (pointers.size === 0) {
        moved = 0;
        dragged.current = false;
      }
      pointers.set(event.pointerId, place(event));
    };
    const onMove = (event: PointerEvent) => {
      const before = pointers.get(event.pointerId);
      if (!before) return;
      const here = place(event);
      const others = [...pointers].filter(([id]) => id !== event.pointerId).map(([, p]) => p);
      pointers.set(event.pointerId, here);
      moved += Math.hypot(here.x - before.x, here.y - before.y);
      if (moved <= STILL) return;
      if (!dragged.current) element.setPointerCapture(event.pointerId);
      dragged.current = true;
      const [other] = others;
      if (other) {
        const spread = (p: { x: number; y: number }) => Math.hypot(p.x - other.x, p.y - other.y);
        const factor = spread(here) / Math.max(1, spread(before));
        setView((v) => zoomAbout(v, factor, (here.x + other.x) / 2, (here.y + other.y) / 2));
      } else
        setView((v) =>
          v.zoom === 1 ? v : { ...v, x: v.x + here.x - before.x, y: v.y + here.y - before.y },
        );
    };
    const onUp = (event: PointerEvent) => void pointers.delete(event.pointerId);
    /** What ends a drag is no click on a part. */
    const onClick = (event: MouseEvent) => {
      if (!dragged.current) return;
      dragged.current = false;
      event.stopPropagation();
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    element.addEventListener('pointerdown', onDown);
    element.addEventListener('pointermove', onMove);
    element.addEventListener('pointerup', onUp);
    element.addEventListener('pointercancel', onUp);
    element.addEventListener('click', onClick, true);
    return () => {
      element.removeEventListener('wheel', onWheel);
      element.removeEventListener('pointerdown', onDown);
      element.removeEventListener('pointermove', onMove);
      element.removeEventListener('pointerup', onUp);
      element.removeEventListener('pointercancel', onUp);
      element.removeEventListener('click', onClick, true);
    };
  }, [host]);

  const zoomBy = (factor: number) => setView(zoomed(host.current!, factor));
  const fit = () => setView(FITTED);
  const pan = (dx: number, dy: number) =>
    setView((v) => (v.zoom === 1 ? v : { ...v, x: v.x + dx, y: v.y + dy }));
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const act = (
      {
        '+': () => zoomBy(STEP),
        '=': () => zoomBy(STEP),
        '-': () => zoomBy(1 / STEP),
        '0': fit,
        ArrowLeft: () => pan(40, 0),
        ArrowRight: () => pan(-40, 0),
        ArrowUp: () => pan(0, 40),
        ArrowDown: () => pan(0, -40),
      } as Record<string, (() => void) | undefined>
    )[event.key];
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  return { view, setView, onKeyDown };
}
