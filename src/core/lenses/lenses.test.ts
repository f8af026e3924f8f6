import { makeSheet } from '@/core/sheet/make';
import type { Ask } from '@/core/design/ask';
import { delayLens } from './delay';
import { harmonicsLens, waveFromHarmonics } from './harmonics';
import { mapLens } from './map';
import { timeLens } from './time';

const at = '2026-11-24T08:00:00.000Z';
const sheetOf = (ask: Partial<Ask>) =>
  makeSheet({
    id: 'x',
    title: 'x',
    at,
    ask: { kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 1000, ...ask },
  });
const ideal = <T>(layers: { id: string; value: T }[]): T =>
  layers.find((l) => l.id === 'ideal')!.value;

test('delay is that of the closed form', () => {
  const { frequenciesHz, seconds } = ideal(delayLens(sheetOf({})).layers);
  frequenciesHz.forEach((hz, k) => {
    const x = hz / 1000;
    const closed = (Math.SQRT2 * (1 + x * x)) / (1 + x ** 4) / (2 * Math.PI * 1000);
    expect(Math.abs(seconds[k] / closed - 1)).toBeLessThan(1e-6);
  });
});

test('a pulse charges and discharges an RC as the exponential says', () => {
  const pulse = timeLens(sheetOf({ order: 1, topology: 'rc-low-pass' })).find(
    (p) => p.id === 'pulse',
  )!;
  const { seconds, volts } = ideal(pulse.layers.layers);
  const tau = 1 / (2 * Math.PI * 1000);
  const [rise, fall] = [0.3e-3, 3.3e-3];
  seconds.forEach((t, k) => {
    const want =
      t < rise ? 0 : t < fall ? 1 - Math.exp((rise - t) / tau) : Math.exp((fall - t) / tau);
    expect(Math.abs(volts[k] - want)).toBeLessThan(2e-3);
  });
});

test('a slow square comes through a low-pass, a fast one nearly vanishes; the burst rings on', () => {
  const pictures = timeLens(sheetOf({}));
  const swing = (id: string) => {
    const { volts } = ideal(pictures.find((p) => p.id === id)!.layers.layers);
    return Math.max(...volts) - Math.min(...volts);
  };
  expect(swing('square-low')).toBeGreaterThan(1);
  expect(swing('square-high')).toBeLessThan(0.1);
  expect(swing('burst')).toBeGreaterThan(1);
});

test('harmonics fall by the level at their frequencies, and move with the cut-off', () => {
  const sheet = sheetOf({});
  const read = (shift: number) =>
    ideal(harmonicsLens(sheet, { wave: 'saw', fundamentalHz: 500, shift }).layers.layers).amplitude;
  const gain = (x: number) => 1 / Math.sqrt(1 + x ** 4);
  expect(read(1)[3] / ((2 / (4 * Math.PI)) * gain(2))).toBeCloseTo(1, 9);
  expect(read(2)[3] / ((2 / (4 * Math.PI)) * gain(1))).toBeCloseTo(1, 9);
});

test('harmonics add up to the wave they are taken from', () => {
  const { input } = harmonicsLens(sheetOf({}), { wave: 'square', fundamentalHz: 10, shift: 1 });
  const wave = waveFromHarmonics(input, undefined, 301);
  expect(wave[50]).toBeCloseTo(1, 0);
  expect(wave[150]).toBeCloseTo(-1, 0);
});

test('the map holds the poles that the stages were designed for', () => {
  const { layers, held } = mapLens(sheetOf({ order: 4, shape: 'chebyshev' }));
  const found = ideal(layers.layers);
  expect(found.verdict).toBe('stable');
  for (const { f0Hz, q } of held)
    expect(
      found.poleFigures.some(
        (p) => Math.abs(p.f0Hz / f0Hz - 1) < 1e-6 && Math.abs(p.q! / q - 1) < 1e-6,
      ),
    ).toBe(true);
});
