import { LENS, NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { freshBench } from './support/browser';

const bench = freshBench();

test.each([
  ['a new sheet', '/', 'New sheet', 'What should it do?'],
  ['a new crossover', '/drivers', 'Begin a crossover', 'Which drivers?'],
])('axe finds nothing serious in the window of %s', async (_, path, opens, title) => {
  const page = await bench.page(path);
  await page.getByRole('button', { name: opens }).click();
  await page.getByRole('dialog', { name: title }).waitFor();
  expect(await seriousInBoth(page, '[role=dialog]')).toEqual(NOTHING_SERIOUS);
});

test('axe finds nothing serious in the weigh-up', async () => {
  const page = await bench.page('/sheet/demo-speech');
  await page.getByRole('button', { name: 'Weigh up' }).click();
  await page.getByText(/designs, each solved/).waitFor();
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);
});

test.each([
  ['Time', 'demo-trim'],
  ['Harmonics', 'demo-trim'],
  ['Map', 'demo-steep'],
  ['Off-axis', 'demo-hall-speaker'],
  ['Decay', 'demo-shelf-speaker-active'],
  ['Board', 'demo-shelf-speaker'],
  ['Slopes', 'demo-shelf-speaker'],
])('axe finds nothing serious through the lens %s', async (lens, sheet) => {
  const page = await bench.page(`/sheet/${sheet}`);
  await page.getByRole('tab', { name: lens }).click();
  const picture = lens === 'Board' ? 'svg[aria-label^="Board of"]' : '[data-picture] svg';
  await page.locator(picture).first().waitFor();
  expect(await seriousInBoth(page, LENS)).toEqual(NOTHING_SERIOUS);
});
