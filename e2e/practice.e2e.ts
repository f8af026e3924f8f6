import made from '@/core/demo/made.json';
import { deal } from '@/core/practice/deal';
import { faultParts } from '@/core/rig/fault';
import type { Sheet } from '@/core/sheet/schema';
import { NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { freshBench } from './support/browser';

const bench = freshBench();
const SHEETS = made as unknown as Sheet[];

test('a board of the ladder is measured, left, come back to, and its culprit named', async () => {
  const page = await bench.page('/');
  await page.getByRole('link', { name: 'Practice' }).click();
  const ladder = page.getByRole('list', { name: 'The ladder' });
  await ladder.getByRole('button', { name: 'Half as much again, board 1: untouched' }).click();
  await page.getByRole('button', { name: 'Measure, for 6' }).click();
  await page.getByText('Ohms', { exact: true }).click();
  await page.getByText(/capacitors empty/).waitFor();
  await page.getByRole('button', { name: 'Measure, for 2' }).click();
  await page.getByText('So far it cost 8.').waitFor();

  await page.reload();
  await ladder.getByRole('button', { name: 'Half as much again, board 1: begun' }).click();
  await page.getByText('So far it cost 8.').waitFor();
  const [culprit] = faultParts(deal({ deal: 1, rung: 3, board: 0 }, SHEETS).fault);
  await page.getByRole('combobox', { name: 'Which part is it' }).click();
  await page.keyboard.type(culprit);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'It is this' }).click();
  await page.getByText(/It cost you 8; the way below costs \d+/).waitFor();
  await page.getByRole('group', { name: 'Take less prediction over frequency' }).waitFor();
  await page.getByText('1 of 30 found out, at 8 in all').waitFor();
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);
});
