import { NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { freshBench } from './support/browser';

const bench = freshBench();

test.each([
  ['the shelf', '/', 'Shelf'],
  ['a sheet', '/sheet/demo-speech', 'Speech band'],
  ['a missing sheet', '/sheet/none', 'no such sheet'],
  ['a bank', '/sheet/demo-bank', 'Parts at 63'],
  ['a crossover', '/sheet/demo-shelf-speaker', 'Humps to trap'],
  ['an active crossover', '/sheet/demo-hall-speaker-active', 'Humps, each taken'],
  ['the drivers', '/drivers', 'Level for 2.83 V'],
  ['the drawer', '/drawer', 'Nothing lies in it yet'],
  ['the plan', '/plan', 'Nothing is to be done'],
  ['the lessons', '/lessons', '0 of 15 passed'],
  ['practice boards', '/practice', 'So far it cost 0'],
])('axe finds nothing serious on %s', async (_, path, text) => {
  const page = await bench.page(path);
  await page.getByText(new RegExp(text)).first().waitFor();
  if (path === '/sheet/demo-speech') await page.getByText('✓ built').first().waitFor();
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);
});
