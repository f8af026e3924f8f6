/** @jest-environment jsdom */
import '@/testing/dom';
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Slider } from './slider';

const shown = (step: number, at: number) => {
  function Open() {
    const [value, setValue] = useState(at);
    return <Slider label="Cut" min={0} max={100} step={step} value={value} onChange={setValue} />;
  }
  render(<Open />);
  return screen.getByRole('slider', { name: 'Cut' });
};

test.each([
  ['ArrowUp', 41.5],
  ['ArrowDown', 40.5],
  ['ArrowLeft', 40.5],
  ['PageUp', 46],
  ['PageDown', 36],
  ['Home', 0],
  ['End', 100],
])('%s goes from 41 to %d in steps of a half, and scrolls nothing', (key, to) => {
  const slider = shown(0.5, 41);
  expect(fireEvent.keyDown(slider, { key })).toBe(false);
  expect(slider.getAttribute('aria-valuenow')).toBe(String(to));
});

test('a value between steps goes on to one, and none goes over an end', () => {
  const slider = shown(0.5, 99.3);
  const now = () => slider.getAttribute('aria-valuenow');
  fireEvent.keyDown(slider, { key: 'ArrowRight' });
  expect(now()).toBe('100');
  fireEvent.keyDown(slider, { key: 'ArrowRight' });
  expect(now()).toBe('100');
  // The browser's own way back is not a way down.
  expect(fireEvent.keyDown(slider, { key: 'ArrowLeft', altKey: true })).toBe(true);
  expect(fireEvent.keyDown(slider, { key: 'a' })).toBe(true);
  expect(now()).toBe('100');
});
