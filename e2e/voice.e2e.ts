import { LENS, NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { becomes, freshBench } from './support/browser';

const bench = freshBench();

test('a voice says how it tracks, what drives it, and what its levels do', async () => {
  const page = await bench.page('/sheet/demo-voice');
  const lens = page.getByRole('region', { name: 'Lens' });
  await lens.getByText(/Reaches/).waitFor();
  await becomes(() => lens.innerText(), /at worst [\d.]+ cents/);
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);
  // Without what follows its warmth the converter drifts; the edit is undone.
  await lens.getByRole('button', { name: /^What meets its drift/ }).click();
  await page.getByRole('menuitem', { name: /^Nothing/ }).click();
  await lens.getByRole('button', { name: 'What meets its drift: nothing' }).waitFor();
  await page.getByRole('button', { name: 'Undo' }).click();
  await lens.getByRole('button', { name: /3300 ppm/ }).waitFor();
  await lens.getByText('Table', { exact: true }).click();
  await lens.getByRole('columnheader', { name: 'at 40 °C' }).waitFor();

  await page.getByRole('tab', { name: 'Scope' }).click();
  await lens.getByRole('button', { name: 'hold this' }).click();
  await page.getByRole('slider', { name: 'Control Cut-off' }).focus();
  await page.keyboard.press('ArrowRight');
  await lens.getByText('held', { exact: true }).waitFor();
  await page.getByRole('tab', { name: 'Drive' }).click();
  await becomes(() => lens.innerText(), /is bent by 1 % from .* peak at the source/);
  await becomes(() => lens.innerText(), /it\s+sings by itself: 8\d\d/);
  await page.emulateMedia({ colorScheme: 'light' });
  expect(await seriousInBoth(page, LENS)).toEqual(NOTHING_SERIOUS);

  await page.getByRole('button', { name: 'Why?' }).click();
  await page.getByRole('table', { name: 'Textbook and solved' }).waitFor();
  await page.keyboard.press('Escape');
  // Without a controller the browser says what it has.
  await page.getByRole('button', { name: 'MIDI', exact: true }).click();
  await becomes(() => page.getByRole('status').last().innerText(), /MIDI|plugged in/);
});

test('a transistor stage is biased from words, and taken further in one step', async () => {
  const page = await bench.page('/');
  await page.getByRole('button', { name: 'New sheet' }).click();
  await page.getByText('Bias a transistor stage').first().click();
  await page
    .getByRole('button', { name: /^(Begin|Start|Create)/ })
    .first()
    .click();
  const rest = page.getByRole('table', { name: 'At rest' });
  await rest.getByRole('row', { name: /Q1, solved/ }).waitFor();
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);
  await page.getByRole('button', { name: /use it: Common emitter with a buffer/ }).click();
  await rest.getByRole('row', { name: /Q2, solved/ }).waitFor();
});
