import { newSheet } from '@/testing/open-sheet';
import { spreadOfSheet } from './spread-sheet';

test.each([
  [20, 20_000],
  [2000, 5000],
  [3300, 3500],
])(
  'the band over %d to %d Hz fills the picture, however narrow, and bends where the curve does',
  (fromHz, toHz) => {
    const sheet = newSheet();
    const run = spreadOfSheet(
      { ...sheet, view: { ...sheet.view, fromHz, toHz } },
      { boards: 200, seed: 1 },
    );
    run.draw(200);
    const { hz, p5, p50, p95 } = run.result(false).levels;
    expect([hz[0], hz.at(-1)]).toEqual([fromHz, toHz]);
    expect(hz.length).toBeGreaterThanOrEqual(9);
    hz.forEach((_, k) => {
      if (k > 0) expect(hz[k]).toBeGreaterThan(hz[k - 1]);
      expect(p5[k]).toBeLessThanOrEqual(p50[k]);
      expect(p50[k]).toBeLessThanOrEqual(p95[k]);
    });
  },
);
