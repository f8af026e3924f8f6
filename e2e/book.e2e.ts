import { NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { aged, Bench, downloaded, freshBench, typeOver, url } from './support/browser';

const bench = freshBench();

test('an evening at a sheet is written down, opened, compared, taken up again, archived and taken in elsewhere', async () => {
  const page = await bench.page('/sheet/demo-speech');
  await page.getByRole('button', { name: 'Margin of the book' }).click();
  const margin = page.getByRole('complementary', { name: 'Margin of the book' });
  await margin.getByText(/written here by itself/).waitFor();
  const part = (name: string) =>
    page.getByRole('button', { name: new RegExp(`^${name}\\b`) }).first();
  await typeOver(page, part('C2'), '3n3');
  await margin.getByText(/^C2 10n → 3n3/).waitFor();
  await typeOver(page, part('R1'), '3k9');
  await margin.getByText(/R1 5k6 → 3k9, C2 10n → 3n3/).waitFor();
  // What is undone is told as such, and holds again when it is done again.
  await page.keyboard.press('Control+z');
  await margin.getByText(/^C2 10n → 3n3/).waitFor();
  await page.keyboard.press('Control+z');
  await margin.getByText(/^Tried and taken back/).waitFor();
  await page.keyboard.press('Control+Shift+z');
  await page.keyboard.press('Control+Shift+z');
  await margin.getByText(/R1 5k6 → 3k9, C2 10n → 3n3/).waitFor();
  await margin.getByRole('textbox', { name: 'A note about this sheet' }).fill('Less hum so.');
  await margin.getByRole('button', { name: 'Write it down' }).click();
  await margin.getByText('Less hum so.').waitFor();
  await aged(page);

  // Two states beside each other.
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('button', { name: 'Compare two states' }).click();
  const both = page.getByRole('dialog', { name: 'Two states beside each other' });
  await both.getByRole('row', { name: /^R1 5k6 3k9/ }).waitFor();
  await both.getByRole('row', { name: /^Upper edge/ }).waitFor();
  await page.keyboard.press('Escape');
  await both.waitFor({ state: 'detached' });

  // The line in the book, with its readings, and the state before it taken up again.
  await page.getByRole('link', { name: 'Book', exact: true }).click();
  await page.getByRole('textbox', { name: /^Find lines/ }).fill('c2 3n3');
  await page.getByRole('option', { name: /C2 10n → 3n3/ }).click();
  const line = page.getByRole('article', { name: /C2 10n → 3n3/ });
  await line.getByRole('group', { name: /^Level over frequency/ }).waitFor();
  await page.getByRole('option', { name: /Highest point .* → / }).waitFor();
  await line.getByLabel('Pictures to add').setInputFiles({
    name: 'scope.png',
    mimeType: 'image/png',
    buffer: Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    ),
  });
  await line.getByRole('img', { name: 'Picture 1' }).waitFor();
  await line.getByRole('button', { name: 'Take up the state before' }).click();
  await page.waitForURL(/\/sheet\/demo-speech/);
  await page
    .getByRole('button', { name: /^R1\b.*5k6/ })
    .first()
    .waitFor();
  await margin.getByText(/^Tried and taken back/).waitFor();
  await aged(page);

  // All of it into one file, and into another browser.
  await page.getByRole('link', { name: 'Shelf', exact: true }).click();
  await page.getByRole('button', { name: 'Archive', exact: true }).click();
  const { name, content } = await downloaded(page, () =>
    page.getByRole('button', { name: 'Make an archive' }).click(),
  );
  expect(name).toMatch(/^jaunty-reed-.*\.zip$/);
  const other = await Bench.open();
  const there = await other.page('/archive');
  const take = (buffer: Buffer) =>
    there
      .getByLabel('Archive to take in')
      .setInputFiles({ name: 'mine.zip', mimeType: 'application/zip', buffer });
  await take(content.subarray(0, content.length - 400));
  await there
    .getByRole('alert')
    .getByText(/mine.zip: This archive is not taken/)
    .waitFor();
  await take(content);
  await there.getByText(/14 sheets, 0 takes, 2 lines of the book, 1 picture/).waitFor();
  await there.getByRole('button', { name: 'Merge it with what is here' }).click();
  await there.getByText('The archive is taken in.').waitFor();
  await there.getByRole('link', { name: 'Book', exact: true }).click();
  await there.getByRole('option', { name: /Less hum so/ }).waitFor();
  await there.getByRole('option', { name: /Tried and taken back/ }).click();
  await there.getByRole('img', { name: 'Picture 1' }).waitFor();
  expect(other.faults).toEqual([]);
});

test('axe finds nothing serious on the book and the archive', async () => {
  const page = await bench.page('/sheet/demo-trim');
  await typeOver(page, page.getByRole('button', { name: /^C1\b/ }).first(), '1n');
  await aged(page);
  await page.getByRole('link', { name: 'Book', exact: true }).click();
  await page
    .getByRole('article')
    .getByRole('group', { name: /^Level over/ })
    .waitFor();
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);
  const archive = await bench.page('/archive');
  await archive.getByText(/are taken/).waitFor();
  expect(await seriousInBoth(archive)).toEqual(NOTHING_SERIOUS);
});

test('a sheet is printed as a report, saved as Markdown, and handed on as a link', async () => {
  await bench.context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const page = await bench.page('/sheet/demo-speech');
  const exporting = async (item: string) => {
    await page.getByRole('button', { name: 'Export', exact: true }).click();
    await page.getByRole('menuitem', { name: item }).click();
  };
  await page.getByText('✓ built').first().waitFor();
  await exporting('Copy a link that holds it');
  await page.getByText('The link is copied.').waitFor();
  const link = await page.evaluate(() => navigator.clipboard.readText());
  expect(link).toMatch(/#sheet=[\w-]+$/);

  await exporting('Report to print or send');
  const paper = page.getByRole('article', { name: /^Report of Speech band/ });
  await paper.getByRole('heading', { name: 'Test plan' }).waitFor();
  await paper.getByRole('img', { name: /^Schematic of/ }).waitFor();
  await paper.getByRole('row', { name: /^Upper edge.* met$/ }).waitFor();
  const { name, content } = await downloaded(page, () =>
    page.getByRole('button', { name: 'Save as Markdown' }).click(),
  );
  expect(name).toMatch(/report\.zip$/);
  expect(content.subarray(0, 2).toString()).toBe('PK');
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);

  const other = await Bench.open();
  const there = await other.page(link.slice(link.indexOf('/#')));
  await there.waitForURL(/\/sheet\/(?!demo)/);
  await there.getByRole('heading', { name: /Speech band for the hearing loop/ }).waitFor();
  const cut = await other.page(`/${link.slice(link.indexOf('#'), -40)}`);
  await cut.getByText(/does not hold a whole sheet/).waitFor();
  expect(other.faults).toEqual([]);
});

test('a folder on disk is kept up to date, also after a reload', async () => {
  const page = await bench.page('/');
  // The browser’s own window cannot be answered here: the page is given a folder of its own instead.
  await bench.context.addInitScript(() => {
    const own = () => navigator.storage.getDirectory();
    Object.assign(window, { showDirectoryPicker: own });
  });
  const written = () =>
    page.evaluate(async () => {
      const folder = await navigator.storage.getDirectory();
      const file = await (await folder.getFileHandle('jaunty-reed.zip')).getFile();
      return { size: file.size, at: file.lastModified };
    });
  await page.goto(url('/archive'));
  await page.getByRole('button', { name: 'Choose a folder' }).click();
  await page.getByText(/^jaunty-reed.zip in .* was written/).waitFor();
  const first = await written();
  expect(first.size).toBeGreaterThan(10_000);
  await page.goto(url('/sheet/demo-trim'));
  await typeOver(page, page.getByRole('button', { name: /^C1\b/ }).first(), '1n');
  await aged(page);
  await page.goto(url('/archive'));
  await page.getByText(/^jaunty-reed.zip in .* was written/).waitFor();
  const second = await written();
  expect(second.at).toBeGreaterThan(first.at);
  expect(second.size).toBeGreaterThan(first.size);
  await page.getByRole('button', { name: 'Keep it no longer' }).click();
  await page.getByRole('button', { name: 'Choose a folder' }).waitFor();
});
