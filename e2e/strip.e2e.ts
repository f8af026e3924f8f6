import { NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { freshBench, typeOver } from './support/browser';

const bench = freshBench();

test('a board is planned beside the page, moved by keys and by hand, and printed to size', async () => {
  const page = await bench.page('/sheet/demo-rumble/board');
  await page.getByRole('button', { name: 'Plan it' }).click();
  const check = page.getByRole('status').filter({ hasText: /copper/ });
  await check.getByText(/joins what the circuit joins/).waitFor();

  const part = page.getByRole('button', { name: /^R1:/ });
  const before = await part.getAttribute('aria-label');
  await part.focus();
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: before!, exact: true }).waitFor({ state: 'detached' });
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: before!, exact: true }).waitFor();

  // Off the board by hand: said at once, and put back.
  const { x, y, width, height } = (await part.boundingBox())!;
  await page.mouse.move(x + width / 2, y + height / 2);
  await page.mouse.down();
  await page.mouse.move(x + width / 2, 5, { steps: 4 });
  await page.mouse.up();
  await page
    .getByText(/^R1, .* stands beside the board\.$/)
    .first()
    .waitFor();
  await page.keyboard.press('Control+z');
  await check.waitFor();

  await typeOver(page, page.getByRole('button', { name: /^Strips:/ }), '24');
  await page.getByRole('group', { name: /^Board of 24 strips/ }).waitFor();
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);
  await page.getByText('Copper side', { exact: true }).click();
  const board = page.getByRole('group', { name: /seen from the copper$/ });
  await board.waitFor();

  await page.emulateMedia({ media: 'print' });
  const cols = Number(/, (\d+) holes/.exec((await board.getAttribute('aria-label'))!)![1]);
  const printed = await board.evaluate((svg) => svg.getBoundingClientRect().width);
  // A tenth of an inch a hole, and room for the counts beside them; 96 pixels are an inch.
  expect(printed / 96).toBeCloseTo((cols + 1.8) / 10, 2);
});
