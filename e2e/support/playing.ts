import type { Locator, Page } from 'playwright-core';

/** Samples that are asked for at once; so many of them go into a second. */
const PIECE = 128;
const RATE = 48_000;

/** Begins to play the sheet that is open; its dock, once the circuit sounds. */
export async function listen(page: Page): Promise<Locator> {
  await page.getByRole('button', { name: 'Listen to it' }).click();
  const dock = page.getByRole('region', { name: 'Listen' });
  await dock.getByRole('button', { name: 'Play', exact: true }).click();
  await dock.getByText(/steps a sample/).waitFor();
  return dock;
}

/** What is missing of what sounds while the cut-off of a voice is moved, some ten times a second. */
export async function missedWhileTurned(
  page: Page,
  dock: Locator,
  seconds: number,
): Promise<{ missed: number; pieces: number; edits: number }> {
  const missed = async () =>
    Number(await dock.locator('[data-missed]').getAttribute('data-missed'));
  await page.getByRole('slider', { name: 'Control Cut-off' }).focus();
  const before = await missed();
  const until = performance.now() + 1000 * seconds;
  let edits = 0;
  while (performance.now() < until) {
    await page.keyboard.press(edits++ % 40 < 20 ? 'ArrowRight' : 'ArrowLeft');
    await page.waitForTimeout(90);
  }
  return { missed: (await missed()) - before, pieces: (seconds * RATE) / PIECE, edits };
}
