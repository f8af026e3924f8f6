import type { Page } from 'playwright-core';
import { makeSheet, makeStage } from '@/core/sheet/make';
import type { Keep, Sheet } from '@/core/sheet/schema';
import { designOf } from '@/core/sheet/design-of';
import { valuesOf, withValue } from '@/core/sheet/stage';
import { topologyOf } from '@/core/topologies';
import { line, percentile, report } from './measure';

const SECONDS = 6;
const PER_SECOND = 60;
const AT = '2026-11-23T08:00:00.000Z';

/** Ten second-order stages with an op-amp each, and five keeps: seven layers. */
function tenOpAmps(): Sheet {
  const sheet = makeSheet({
    id: 'ten',
    title: 'Ten op-amps, seven layers',
    at: AT,
    ask: { kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 2000, gainDb: 0 },
  });
  const stages = Array.from({ length: 10 }, (_, i) =>
    makeStage(
      `s${i + 1}`,
      topologyOf('unity-low-pass'),
      { f0Hz: 2000 + 300 * i, q: 0.6 + 0.1 * i },
      sheet.parts,
      'hand',
    ),
  );
  const ways = [{ ...sheet.ways[0], stages }];
  const keeps = Array.from({ length: 5 }, (_, k): Keep => {
    const own = stages.map((s) => withValue(s, 'R1', valuesOf(s).R1 * (1 + k / 20)));
    const design = designOf({ ...sheet, ways: [{ ...ways[0], stages: own }] });
    return { id: `k${k}`, name: `keep ${k}`, at: AT, shown: true, design };
  });
  return { ...sheet, ways, keeps };
}

/**
 * Runs in the page: arrow keys on the slider, sixty a second, while every change of the built curve
 * is timed. As text, because bundlers add helpers to functions that the page does not have.
 */
const streamOf = (part: string, layer: string) => `new Promise((resolve) => {
  const slider = document.querySelector('[aria-label^="Try ${part}"]');
  const shape = () => document.querySelector('path[data-layer="${layer}"]').getAttribute('d');
  const edits = [], pictures = [];
  let last = shape(), n = 0;
  const press = () => {
    edits.push(performance.now());
    const key = Math.floor(n++ / 30) % 2 === 0 ? 'ArrowRight' : 'ArrowLeft';
    const keyCode = key === 'ArrowRight' ? 39 : 37;
    slider.dispatchEvent(new KeyboardEvent('keydown', { key, keyCode, which: keyCode, bubbles: true }));
  };
  const timer = setInterval(press, ${1000 / PER_SECOND});
  let done = false;
  const look = () => {
    const now = shape();
    if (now !== last) { pictures.push(performance.now()); last = now; }
    if (!done) requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
  setTimeout(() => {
    clearInterval(timer);
    setTimeout(() => { done = true; resolve({ edits, pictures }); }, 1000);
  }, ${SECONDS * 1000});
})`;

/** Edits in a stream on a ten-op-amp path with seven layers: edit to picture, and gaps between pictures. */
export async function benchStream(page: Page, url: string): Promise<void> {
  await page.goto(`${url}/`);
  await page.getByLabel('Sheet files to import').setInputFiles({
    name: 'ten.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(tenOpAmps())),
  });
  await page.getByRole('link', { name: 'Open Ten op-amps, seven layers' }).click();
  await page.getByRole('button', { name: /^R1,/ }).click();
  await page.keyboard.press('Escape');
  await stream(page, 'ten op-amps, seven layers', 'R1', 'built');
  await benchCrossoverStream(page, url);
}

/** The same on the demo's three-way with three keeps: ways, sums and keeps are seven lines. */
async function benchCrossoverStream(page: Page, url: string): Promise<void> {
  await page.goto(`${url}/sheet/demo-hall-speaker`);
  await page.locator('path[data-layer="sum"]').waitFor();
  for (let k = 0; k < 3; k++) {
    // The button tells how many there are from the first on; its key stays.
    await page.keyboard.press('k');
    await page.locator('input:focus').waitFor();
    await page.keyboard.type(`keep ${k}`);
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: /^high: (turned over|as it is)/ }).click();
  }
  await page.getByRole('button', { name: /^L1,/ }).first().click();
  await page.keyboard.press('Escape');
  await stream(page, 'three ways, seven layers', 'L1', 'sum');
}

/** @param part whose slider is turned @param layer whose curve is watched */
async function stream(page: Page, what: string, part: string, layer: string): Promise<void> {
  await page.getByRole('slider', { name: new RegExp(`^Try ${part}`) }).waitFor();
  await page.waitForTimeout(1000);
  const { edits, pictures } = await page.evaluate<{ edits: number[]; pictures: number[] }>(
    streamOf(part, layer),
  );
  const waits = edits.flatMap((t) => {
    const next = pictures.find((p) => p > t);
    return next === undefined ? [] : [next - t];
  });
  const gaps = pictures.slice(1).map((p, i) => p - pictures[i]);
  report(`Stream of ${edits.length} edits, ${what}`, waits, 'ms');
  line('  p95', percentile(waits, 0.95), 'ms');
  line('  longest gap between pictures', Math.max(...gaps), 'ms');
  line('  pictures a second', pictures.length / SECONDS, '');
}
