/** @jest-environment jsdom */
import '@/testing/dom';
import { fireEvent, render, screen } from '@testing-library/react';
import { useDrag } from './use-drag';

const SCALE = 20;
function shown() {
  const onDrop = jest.fn();
  const onClick = jest.fn();
  function Part() {
    const { shift, handlers } = useDrag(SCALE, onDrop);
    return (
      <div {...handlers} onClick={onClick} data-testid="part">
        {shift ? shift.join(',') : 'at rest'}
      </div>
    );
  }
  render(<Part />);
  const part = screen.getByTestId('part');
  const at = (x: number, y: number) => ({ clientX: x, clientY: y, pointerId: 1, button: 0 });
  return {
    onDrop,
    onClick,
    part,
    down: (x: number, y: number, button = 0) =>
      fireEvent.pointerDown(part, { ...at(x, y), button }),
    move: (x: number, y: number) => fireEvent.pointerMove(part, at(x, y)),
    up: () => {
      fireEvent.pointerUp(part, at(0, 0));
      fireEvent.click(part);
    },
  };
}
// The simulated browser has no pointer events of its own, and its mouse events have no such places.
beforeAll(() => {
  class Pointed extends MouseEvent {
    readonly pointerId: number;
    constructor(type: string, init: MouseEventInit & { pointerId?: number } = {}) {
      super(type, init);
      this.pointerId = init.pointerId ?? 0;
    }
  }
  globalThis.PointerEvent ??= Pointed as unknown as typeof PointerEvent;
});

test('a part follows the pointer in steps of the grid, and is dropped where it is let go', () => {
  const { down, move, up, part, onDrop, onClick } = shown();
  down(100, 100);
  move(131, 100);
  expect(part.textContent).toBe('2,0');
  move(128, 55);
  expect(part.textContent).toBe('1,-2');
  up();
  expect(onDrop.mock.calls).toEqual([[[1, -2]]]);
  expect(part.textContent).toBe('at rest');
  // The click that ends a drag is none.
  expect(onClick).not.toHaveBeenCalled();
});

test('a press that hardly moves is a click', () => {
  const { down, move, up, onDrop, onClick } = shown();
  down(100, 100);
  move(102, 101);
  up();
  expect(onDrop).not.toHaveBeenCalled();
  expect(onClick).toHaveBeenCalledTimes(1);
});

test('what comes back to where it began is not moved, and is no click either', () => {
  const { down, move, up, onDrop, onClick } = shown();
  down(100, 100);
  move(160, 100);
  move(101, 101);
  up();
  expect(onDrop).not.toHaveBeenCalled();
  expect(onClick).not.toHaveBeenCalled();
  down(100, 100);
  up();
  expect(onClick).toHaveBeenCalledTimes(1);
});

test('other buttons take hold of nothing, and a cancelled drag drops nothing', () => {
  const { down, move, part, onDrop } = shown();
  down(100, 100, 2);
  move(200, 100);
  expect(part.textContent).toBe('at rest');
  down(100, 100);
  move(200, 100);
  expect(part.textContent).toBe('5,0');
  fireEvent.pointerCancel(part);
  expect(part.textContent).toBe('at rest');
  expect(onDrop).not.toHaveBeenCalled();
});
