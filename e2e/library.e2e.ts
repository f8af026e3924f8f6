import made from '@/core/demo/made.json';
import { DRIVER, TAKE } from '@/core/library/testing';
import type { Sheet } from '@/core/sheet/schema';
import { aged, Bench, downloaded, reading, typeOver } from './support/browser';

/** A sheet with a measured board and, in a keep, the same into a loudspeaker. */
function spoken(): object {
  const sheet = structuredClone(
    (made as unknown as Sheet[]).find((s) => s.demo === 'speech') ??
      (made as unknown as Sheet[])[0],
  );
  const [way] = sheet.ways;
  const frequenciesHz = Array.from({ length: 60 }, (_, k) => 50 * 400 ** (k / 59));
  const take = {
    ...TAKE,
    name: 'board 1, first sweep',
    frequenciesHz,
    levelDb: frequenciesHz.map((hz) => -10 * Math.log10(1 + (hz / 3300) ** 8)),
    phaseDegrees: frequenciesHz.map((hz) => -4 * Math.atan(hz / 3300) * 57.3),
  };
  return {
    ...sheet,
    title: 'Into the woofer',
    keeps: [],
    ways: [
      { ...way, to: { is: 'driver', name: 'Left woofer', driver: DRIVER.id, inverted: false } },
    ],
    boards: [{ id: 'b1', name: 'Board 1', values: {}, takes: [TAKE.id], note: '' }],
    along: { takes: [take], drivers: [DRIVER] },
  };
}
const file = (name: string, document: unknown) => ({
  name,
  mimeType: 'application/json',
  buffer: Buffer.from(JSON.stringify(document)),
});

const open: Bench[] = [];
const bench = async (): Promise<Bench> => {
  const one = await Bench.open();
  open.push(one);
  return one;
};
afterEach(() => expect(open.splice(0).flatMap((b) => b.faults)).toEqual([]));

test('a take and a loudspeaker come with their sheet, are shown and solved, and go on with it', async () => {
  const page = await (await bench()).page();
  const importing = (...files: ReturnType<typeof file>[]) =>
    page.getByLabel('Sheet files to import').setInputFiles(files);
  await importing(file('spoken.json', spoken()));
  await page.getByText('Imported one sheet').first().waitFor();
  await page.getByRole('link', { name: 'Open Into the woofer' }).click();

  // The take stands as dots on the picture and in the list, and the cursor reads it.
  await page.locator(`path[data-layer="take ${TAKE.id}"]`).waitFor();
  const layers = page.getByRole('list', { name: 'Layers' });
  await layers.getByText('board 1, first sweep').waitFor();
  await page.getByRole('slider', { name: 'Cursor frequency' }).focus();
  await page.keyboard.press('ArrowRight');
  expect(
    await page.getByRole('slider', { name: 'Cursor frequency' }).getAttribute('aria-valuetext'),
  ).toMatch(/board 1, first sweep −?\d/);
  await page.getByRole('tab', { name: 'Phase' }).click();
  await page.locator(`path[data-layer="take ${TAKE.id}"]`).waitFor();

  // The path ends in the loudspeaker, and is solved into it.
  await page.getByText(DRIVER.name).first().waitFor();
  await reading(page, /Level at 1/)
    .filter({ hasText: /dB$/ })
    .waitFor();
  await typeOver(page, page.getByRole('button', { name: /^Load name/ }), 'Right woofer');
  await page.getByRole('button', { name: 'Load name: Right woofer' }).waitFor();

  // Two keeps, a reload, and the file of it holds everything.
  for (const name of ['first', 'second']) {
    await page.getByRole('button', { name: /^Keep( ·|$)/ }).click();
    await page.getByRole('textbox', { name: 'Name of the keep' }).fill(name);
    await page.keyboard.press('Enter');
    await layers.getByText(`keep “${name}”`).waitFor();
  }
  await aged(page);
  await page.reload();
  await layers.getByText('keep “second”').waitFor();
  await page.getByRole('button', { name: 'Export' }).click();
  const { content } = await downloaded(page, () =>
    page.getByRole('menuitem', { name: 'Sheet file (JSON)' }).click(),
  );
  const written = JSON.parse(content.toString()) as { keeps: unknown[]; along: object };
  expect(written.keeps).toHaveLength(2);
  expect(written.along).toMatchObject({
    takes: [{ id: TAKE.id, name: 'board 1, first sweep' }],
    drivers: [DRIVER],
  });

  // Another browser has it all from the file; without what goes along it says what is missing.
  const there = await (await bench()).page();
  const bare: Record<string, unknown> = { ...written, title: 'Bare' };
  delete bare.along;
  await there
    .getByLabel('Sheet files to import')
    .setInputFiles([file('whole.json', written), file('bare.json', bare)]);
  await there.getByText('Imported 2 sheets').first().waitFor();
  await there.getByRole('link', { name: 'Open Into the woofer' }).click();
  await there.locator(`path[data-layer="take ${TAKE.id}"]`).waitFor();
  const theirs = there.getByRole('list', { name: 'Layers' });
  await theirs.getByText('keep “first”').waitFor();
  await theirs.getByText('board 1, first sweep').waitFor();
  // Both sheets name the same loudspeaker, and one of them brought it.
  await there.getByRole('link', { name: 'Shelf', exact: true }).click();
  await there.getByRole('link', { name: 'Open Bare' }).click();
  await there.getByText(DRIVER.name).first().waitFor();
  await there.locator('path[data-layer="built"]').waitFor();
});

test('a sheet whose loudspeaker is not in this browser says so, and works otherwise', async () => {
  const page = await (await bench()).page();
  const bare: Record<string, unknown> = { ...spoken() };
  delete bare.along;
  await page.getByLabel('Sheet files to import').setInputFiles(file('bare.json', bare));
  await page.getByText('Imported one sheet').first().waitFor();
  await page.getByRole('link', { name: 'Open Into the woofer' }).click();
  await page
    .getByText(/“Left woofer” is not among the drivers of this browser/)
    .first()
    .waitFor();
  await page.getByText('not in this browser').first().waitFor();
  await page.locator('path[data-layer="ideal"]').waitFor();
  expect(await page.locator('path[data-layer="built"]').count()).toBe(0);
});
