import { freshBench } from './support/browser';
import { playing } from './support/playing';

const bench = freshBench();

/** Samples that the audio thread asks for at once, and how many of them a second. */
const PIECES_A_SECOND = 48_000 / 128;
/** Of all of them; some are lacking where the machine itself stands still. */
const MOST = 0.01;

test('nothing is missing from what sounds while its control is moved', async () => {
  const { page, dock } = await playing(bench);
  const missed = async () =>
    Number(await dock.locator('[data-missed]').getAttribute('data-missed'));
  await page.getByRole('slider', { name: 'Control Cut-off' }).focus();
  const before = await missed();
  const from = Date.now();
  for (let n = 0; n < 150; n++) {
    await page.keyboard.press(n % 40 < 20 ? 'ArrowRight' : 'ArrowLeft');
    await page.waitForTimeout(90);
  }
  const pieces = ((Date.now() - from) / 1000) * PIECES_A_SECOND;
  expect((await missed()) - before).toBeLessThan(MOST * pieces);
});
