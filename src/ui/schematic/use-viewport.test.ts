import fc from 'fast-check';
import { FITTED, zoomAbout, type Viewport } from './use-viewport';

const place = fc.double({ min: 0, max: 800, noNaN: true });

/** Where a point of the fitted drawing lies in the room. */
const shown = ({ zoom, x, y }: Viewport, [px, py]: [number, number]) => [
  px * zoom + x,
  py * zoom + y,
];

test('zooming leaves the point that is zoomed about where it is, and goes back the way it came', () => {
  fc.assert(
    fc.property(place, place, fc.double({ min: 1.01, max: 4, noNaN: true }), (px, py, factor) => {
      const near = zoomAbout(FITTED, factor, px, py);
      const [x, y] = shown(near, [px, py]);
      expect(x).toBeCloseTo(px, 6);
      expect(y).toBeCloseTo(py, 6);
      expect(near.zoom).toBeCloseTo(factor, 9);
      expect(zoomAbout(near, 1 / (factor * 2), px, py)).toEqual(FITTED);
    }),
  );
});

test('it is never smaller than its room, nor larger than twelve times', () => {
  expect(zoomAbout(FITTED, 0.1, 5, 5)).toEqual(FITTED);
  expect(zoomAbout(FITTED, 1e6, 5, 5).zoom).toBe(12);
});
