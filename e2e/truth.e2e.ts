import { becomes, freshBench, reading } from './support/browser';

const bench = freshBench();

test('what makes built other than ideal is told term by term, and the terms add up', async () => {
  const page = await bench.page('/sheet/demo-trim');
  await page.getByRole('tab', { name: 'Difference' }).click();
  const table = page.getByRole('table', { name: 'What each term adds to each reading' });
  const row = table.getByRole('row', { name: /^Level at 1\.8 kHz/ });
  await becomes(() => row.textContent(), /\d/);
  const [whole, ...terms] = (await row.getByRole('cell').allTextContents()).map((text) =>
    Number(text.replace('−', '-')),
  );
  expect(terms.length).toBeGreaterThan(1);
  expect(Math.abs(terms.reduce((a, b) => a + b) - whole)).toBeLessThan(0.005 * (terms.length + 1));
  const load = table.getByRole('button', { name: 'load', exact: true });
  await load.click();
  expect(await load.getAttribute('aria-pressed')).toBe('true');
  await page.getByText('of it what the path ends in').waitFor();
});

test('a joint that loses is mended by one click, and undo takes it back', async () => {
  const page = await bench.page('/sheet/demo-trim');
  await page
    .getByRole('button', { name: /Joint, loses −0\.[1-9]/ })
    .last()
    .click();
  await page.getByText(/The rule of thumb wants 10 times/).waitFor();
  await page.getByRole('button', { name: 'Put a buffer here' }).click();
  await page.getByRole('button', { name: /^Stage 2, Buffer/ }).waitFor();
  await becomes(() => reading(page, /Level at 1\.8 kHz/).textContent(), /^−0\.[234]/);
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: /^Stage 2, Buffer/ }).waitFor({ state: 'detached' });
});

test('a resistor becomes a knob: its travel is listed, a key turns it', async () => {
  const page = await bench.page('/sheet/demo-trim');
  const schematic = page.getByRole('group', { name: /Schematic/ });
  await schematic.getByRole('button', { name: /^R1/ }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'make it a knob …' }).click();
  const form = page.getByRole('form', { name: 'A knob for R1' });
  await form.getByRole('textbox', { name: 'name' }).fill('Brightness');
  await form.getByRole('button', { name: 'Put the knob in' }).click();
  const travel = page.getByRole('table', { name: 'What the travel does' });
  await travel.getByRole('row', { name: /^100 %/ }).waitFor();
  await page.getByText(/most even/).waitFor();

  const before = await reading(page, /Upper edge/).textContent();
  await page.getByRole('combobox', { name: 'Key of Brightness' }).click();
  await page.getByTitle('key J').click();
  for (let n = 0; n < 5; n++) await page.keyboard.press('j');
  await becomes(
    () => reading(page, /Upper edge/).textContent(),
    new RegExp(`^(?!${before!.replace('.', '\\.')}).*Hz`),
  );
  await page.keyboard.press('Shift+J');

  // Keys that come faster than the page draws are all taken.
  const slider = page.getByRole('slider', { name: 'Control Brightness' });
  await slider.press('Home');
  const presses = Array.from({ length: 90 }, () => page.keyboard.press('ArrowRight'));
  await Promise.all(presses);
  await becomes(() => slider.getAttribute('aria-valuenow'), /^90$/);
});

test('known values of a bank are pasted, and what is missing comes back beside what is marked', async () => {
  const page = await bench.page('/sheet/demo-bank');
  await page.getByRole('button', { name: 'Paste known values' }).click();
  await page
    .getByRole('textbox', { name: 'Table of known values' })
    .fill(
      'channel,1/C1,1/C2,1/R1,1/R3,1/R2 marked,1/R2 trimmer\n1,68n,68n,100k,200k,12k,2k2\n9,1n,,,,,',
    );
  await page.getByText(/Line 3: there is no channel “9”/).waitFor();
  await page.getByRole('button', { name: 'Put in 1 channels' }).click();
  await page.getByRole('cell', { name: /^R2 12\.\d kΩ ✓/ }).waitFor();
  await page.getByText(/the trimmer reaches it, \d+ % up/).waitFor();
});
