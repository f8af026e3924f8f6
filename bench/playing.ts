import type { Page } from 'playwright-core';
import { line } from './measure';

const SECONDS = 60;
/** Samples that the sound is asked for at once. */
const PIECE = 128;
const RATE = 48_000;

/** What is missing from a minute of a voice that sounds while its control is moved, ten times a second. */
export async function benchPlaying(page: Page, url: string): Promise<void> {
  await page.goto(`${url}/sheet/demo-voice`);
  await page.getByRole('button', { name: 'Listen to it' }).click();
  const dock = page.getByRole('region', { name: 'Listen' });
  await dock.getByRole('button', { name: 'Play', exact: true }).click();
  await dock.getByText(/steps a sample/).waitFor();
  await page.waitForTimeout(3000);
  const missed = async () =>
    Number(await dock.locator('[data-missed]').getAttribute('data-missed'));
  const slider = page.getByRole('slider', { name: 'Control Cut-off' });
  await slider.focus();
  const before = await missed();
  const until = performance.now() + 1000 * SECONDS;
  let edits = 0;
  while (performance.now() < until) {
    await page.keyboard.press(edits++ % 40 < 20 ? 'ArrowRight' : 'ArrowLeft');
    await page.waitForTimeout(90);
  }
  const gaps = (await missed()) - before;
  line(`Pieces missed in a minute of playing, ${edits} edits`, gaps, '');
  line('  of so many', (SECONDS * RATE) / PIECE, '');
}
