import type { Page } from 'playwright-core';
import { aged, downloaded, freshBench, reading, typeOver, url } from './support/browser';

const bench = freshBench();

const shown = (page: Page, text: string | RegExp) => page.getByText(text).first().waitFor();
const builtEdge = (page: Page) => reading(page, /edge, 3[.,]01\sdB down/);

/** Wait until a cell reads as expected. */
async function reads(cell: ReturnType<typeof reading>, pattern: RegExp): Promise<void> {
  const deadline = Date.now() + 5000;
  let text = '';
  while (Date.now() < deadline) {
    text = (await cell.textContent()) ?? '';
    if (pattern.test(text)) return;
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  throw new Error(`expected ${pattern}, read “${text}”`);
}

async function setPart(page: Page, part: RegExp, value: string): Promise<void> {
  await typeOver(
    page,
    page.getByRole('group', { name: /Schematic/ }).getByRole('button', { name: part }),
    value,
  );
}

test('from a job to an exported file: design, edit, undo, keep, compare, reload', async () => {
  const page = await bench.page();
  await page.getByRole('button', { name: 'New sheet' }).click();
  await page.getByText('Take the top off, simply').click();
  await page.getByLabel('Called').fill('Top trim');
  await page.getByRole('button', { name: 'Begin the sheet' }).click();
  await shown(page, 'Top trim');
  // The axis is told to its very end.
  await page.locator('svg').getByText('500k', { exact: true }).waitFor();

  // An RC low-pass of 10k and 10n behind 0 ohm into an open end: 1/(2 pi RC) = 1.592 kHz.
  await typeOver(page, page.getByRole('button', { name: /Source resistance/ }), '0');
  await page.getByRole('button', { name: /Load resistance/ }).click();
  await page.keyboard.press('Delete');
  await page.keyboard.press('Enter');
  await setPart(page, /^R1/, '10k');
  await setPart(page, /^C1/, '10n');
  await reads(builtEdge(page), /^1\.592\skHz$/);

  await typeOver(page, page.getByRole('button', { name: 'Keep', exact: true }), 'ten and ten');
  await setPart(page, /^C1/, '0,022u');
  await reads(builtEdge(page), /^723\.4\sHz$/);
  await reads(reading(page, /edge, 3[.,]01\sdB down/, 4), /^1\.592\skHz$/);

  await page.keyboard.press('Control+z');
  await reads(builtEdge(page), /^1\.592\skHz$/);
  await page.keyboard.press('Control+Shift+z');
  await reads(builtEdge(page), /^723\.4\sHz$/);

  await aged(page);
  await page.reload();
  await reads(builtEdge(page), /^723\.4\sHz$/);
  await page.getByRole('button', { name: /^Keep/ }).click();
  await page.getByRole('button', { name: 'Go back to keep ten and ten' }).click();
  await reads(builtEdge(page), /^1\.592\skHz$/);
  await page.keyboard.press('Escape');

  const exportAs = async (item: string) => {
    // A menu still closing from the last export would take this click as its own.
    await page.getByRole('menu').waitFor({ state: 'hidden' });
    await page.getByRole('button', { name: 'Export' }).click();
    return downloaded(page, () => page.getByRole('menuitem', { name: item }).click());
  };
  const file = await exportAs('Sheet file (JSON)');
  expect(file.name).toBe('top-trim.sheet.json');
  expect(JSON.parse(file.content.toString())).toMatchObject({
    format: 'jaunty-reed/sheet',
    version: 2,
    title: 'Top trim',
  });
  const csv = (await exportAs('Response of every layer (CSV)')).content.toString();
  expect(csv).toMatch(/^layer,frequency_hz,level_db,phase_degrees\r\nideal,/);
  for (const svg of ['Schematic as shown (SVG)', 'Picture as shown (SVG)']) {
    const text = (await exportAs(svg)).content.toString();
    expect(text).toContain('<svg');
    expect(text).not.toMatch(/var\(--|class="/);
  }
  for (const png of ['Schematic as shown (PNG)', 'Picture as shown (PNG)']) {
    expect((await exportAs(png)).content.subarray(1, 4).toString()).toBe('PNG');
  }

  // The exported file comes back as a sheet of its own.
  await page.goto(url('/'));
  await page
    .getByLabel('Sheet files to import')
    .setInputFiles({ name: 'back.json', mimeType: 'application/json', buffer: file.content });
  await shown(page, 'Imported one sheet');
  await page.getByRole('heading', { name: 'Top trim', exact: true }).nth(1).waitFor();
  expect(await page.getByRole('heading', { name: 'Top trim', exact: true }).count()).toBe(2);
});

test('the ask is edited as a sentence and the design follows; impossible wishes are refused in words', async () => {
  const page = await bench.page('/sheet/demo-speech');
  await page.getByRole('button', { name: /^Order/ }).click();
  await page.getByRole('menuitem', { name: /order 6/ }).click();
  await page.getByRole('button', { name: /^Stage 3/ }).waitFor();
  await typeOver(page, page.getByRole('button', { name: /^Edge frequency/ }), '1k2');
  await reads(reading(page, /edge, 3[.,]01\sdB down/, 1), /^1\.2\skHz$/);
  await typeOver(page, page.getByRole('button', { name: /^Gain/ }), '6');
  await page
    .getByRole('alert')
    .getByText(/gain is fixed at 0 dB and 6 dB was asked/)
    .waitFor();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Kind/ }).click();
  await page.getByRole('menuitem', { name: /\(high-pass\)/ }).click();
  await page.getByRole('row', { name: /Lower edge/ }).waitFor();
});

test('stages are added, bypassed and removed; joints say what they lose', async () => {
  const page = await bench.page('/sheet/demo-trim');
  await page
    .getByRole('button', { name: /add a stage here/i })
    .first()
    .click();
  await page.getByRole('button', { name: 'RC high-pass', exact: true }).click();
  await page.getByRole('button', { name: /^Stage 2, RC low-pass/ }).waitFor();
  await page
    .getByRole('button', { name: /Joint, loses −[1-9]/ })
    .first()
    .waitFor();
  await page.getByRole('button', { name: 'Actions for stage 1' }).click();
  await page.getByRole('menuitem', { name: 'Bypass' }).click();
  await page.getByRole('button', { name: /^Stage 1.*bypassed/ }).waitFor();
  await page.getByRole('button', { name: 'Actions for stage 1' }).click();
  await page.getByRole('menuitem', { name: 'Remove' }).click();
  await page.getByRole('button', { name: /^Stage 1, RC low-pass/ }).waitFor();
});

test('a value that cannot be read is explained where it was typed, and nothing changes', async () => {
  const page = await bench.page('/sheet/demo-trim');
  await reads(builtEdge(page), /Hz/);
  const before = await builtEdge(page).textContent();
  await setPart(page, /^R1/, 'lots');
  await page
    .getByRole('alert')
    .getByText(/“lots” is not a resistance.*Expected something like 4k7/)
    .waitFor();
  await page.keyboard.press('Escape');
  expect(await builtEdge(page).textContent()).toBe(before);
});

test('the keyboard alone makes a sheet, edits a part, pins a reading and finds a command', async () => {
  const page = await bench.page();
  await page.getByRole('heading', { name: 'Shelf', exact: true }).waitFor();
  await page.keyboard.press('n');
  await page.getByLabel('Called').focus();
  await page.keyboard.type('By keys');
  await page.keyboard.press('Enter');
  await shown(page, 'By keys');
  await page.getByRole('button', { name: /^R1/ }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('12k');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^R1, 12k/ }).waitFor();

  await page.getByRole('slider', { name: 'Cursor frequency' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Pin this reading' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('rowheader', { name: /^Level at 2\.0\d+\skHz/ }).waitFor();

  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What would you like to do, or open?').waitFor();
  await page.keyboard.type('lens phase');
  await page.keyboard.press('Enter');
  await page.getByRole('tab', { name: 'Phase', selected: true }).waitFor();
  await page.getByRole('dialog').waitFor({ state: 'hidden' });
  for (const [key, lens] of ['Level', 'Phase', 'Delay', 'Time', 'Harmonics', 'Map'].entries()) {
    await page.keyboard.press(`${key + 1}`);
    await page.getByRole('tab', { name: lens, selected: true }).waitFor();
  }
  await page.keyboard.press('?');
  await page.getByRole('dialog', { name: 'Shortcuts' }).waitFor();
  await page.keyboard.press('Escape');
});
