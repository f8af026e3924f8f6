import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { Bench, reading, url } from './support/browser';

const AXE = readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8');

interface AxeResult {
  violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
}

describe.each(['light', 'dark'] as const)('axe finds nothing serious in %s', (scheme) => {
  test.each([
    ['the shelf', '/', 'Shelf', ''],
    ['a sheet', '/sheet/demo-speech', 'Speech band', ''],
    ['a missing sheet', '/sheet/none', 'no such sheet', ''],
    ['a bank', '/sheet/demo-bank', 'Parts at 63', ''],
    ['the weigh-up', '/sheet/demo-speech', 'Speech band', 'Weigh up'],
    ['the time lens', '/sheet/demo-trim', 'Top trimmed', 'Time'],
    ['the harmonics', '/sheet/demo-trim', 'Top trimmed', 'Harmonics'],
    ['the map', '/sheet/demo-steep', 'Steep low-pass', 'Map'],
  ])('%s', async (_, path, text, press) => {
    const bench = await Bench.open(scheme);
    const page = await bench.page(path);
    await page.getByText(new RegExp(text)).first().waitFor();
    if (path.includes('speech')) await page.getByText('✓ built').first().waitFor();
    if (press === 'Weigh up') {
      await page.getByRole('button', { name: press }).click();
      await page.getByText(/designs, each solved/).waitFor();
    } else if (press !== '') {
      await page.getByRole('tab', { name: press }).click();
      await page.locator('[data-picture] svg').first().waitFor();
    }
    // Evaluated from outside the page, so the page's own policy stays in force.
    await page.evaluate(AXE);
    const result = await page.evaluate<AxeResult>('axe.run()');
    const serious = result.violations.filter(
      (v) => v.impact === 'serious' || v.impact === 'critical',
    );
    expect(
      serious.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`),
    ).toEqual([]);
    expect(bench.faults).toEqual([]);
    await bench.close();
  });
});

describe('nothing is lost', () => {
  let bench: Bench;
  beforeEach(async () => {
    bench = await Bench.open();
  });
  afterEach(() => bench.close());

  test('a broken or foreign file is refused with the place, and the shelf stays as it was', async () => {
    const page = await bench.page();
    await page.getByRole('heading', { name: 'Rumble filter for the record deck' }).waitFor();
    const files = [
      {
        name: 'cut.json',
        mimeType: 'application/json',
        buffer: Buffer.from('{"format":"jaunty-reed/sheet","ver'),
      },
      {
        name: 'foreign.json',
        mimeType: 'application/json',
        buffer: Buffer.from('{"format":"other"}'),
      },
      {
        name: 'half.json',
        mimeType: 'application/json',
        buffer: Buffer.from('{"format":"jaunty-reed/sheet","version":1,"id":"x"}'),
      },
    ];
    const sheets = page.getByRole('list', { name: 'Sheets' }).getByRole('listitem');
    const before = await sheets.count();
    await page.getByLabel('Sheet files to import').setInputFiles(files);
    const alert = page.getByRole('alert').filter({ hasText: 'Nothing was imported' });
    await alert.getByText(/cut\.json: The file is not JSON/).waitFor();
    await alert.getByText(/foreign\.json: This is not a sheet: its format is "other"/).waitFor();
    await alert.getByText(/half\.json: The sheet cannot be read at “title”: is missing/).waitFor();
    expect(await sheets.count()).toBe(before);
  });

  test('an edit older than 300 ms survives a sudden reload', async () => {
    const page = await bench.page('/sheet/demo-rumble');
    await page.getByRole('button', { name: /^R1/ }).click();
    await page.keyboard.type('33k3');
    await page.keyboard.press('Enter');
    await page.waitForTimeout(300);
    await page.reload();
    await page.getByRole('button', { name: /^R1, 33k3/ }).waitFor();
  });

  test('two tabs on one sheet: the second is told, and both versions are kept', async () => {
    const [one, two] = [await bench.page('/sheet/demo-trim'), await bench.page('/sheet/demo-trim')];
    await one.getByRole('button', { name: /^R1/ }).waitFor();
    await two.getByRole('button', { name: /^R1/ }).waitFor();
    const rename = async (page: typeof one, title: string) => {
      await page.getByRole('button', { name: /: rename$/ }).click();
      await page.keyboard.type(title);
      await page.keyboard.press('Enter');
    };
    // Both edit at once, before either hears of the other.
    await Promise.all([rename(one, 'From one'), rename(two, 'From two')]);
    const told = await Promise.race(
      [one, two].map((p) =>
        p
          .getByRole('alert')
          .getByText(/Another tab has changed/)
          .waitFor({ timeout: 4000 })
          .then(
            () => p,
            () => null,
          ),
      ),
    );
    if (told) {
      await told.getByRole('button', { name: 'Keep mine as a copy' }).click();
      await told.getByText(/this tab’s copy/).waitFor();
    }
    await one.goto(url('/'));
    await one.getByRole('heading', { name: /^From/ }).first().waitFor();
    const titles = await one
      .getByRole('list', { name: 'Sheets' })
      .getByRole('heading')
      .allTextContents();
    expect(titles.filter((t) => t.startsWith('From'))).toHaveLength(told ? 2 : 1);
  });

  test('delete can be undone, names and copies are made, and the demo comes back beside changed sheets', async () => {
    const page = await bench.page();
    const list = page.getByRole('list', { name: 'Sheets' });
    await page
      .getByRole('button', { name: 'Actions for Rumble filter for the record deck' })
      .click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await list.getByRole('heading', { name: 'Rumble filter for the record deck' }).waitFor();
    await page
      .getByRole('button', { name: 'Actions for Rumble filter for the record deck' })
      .click();
    await page.getByRole('menuitem', { name: 'Rename' }).click();
    await page.keyboard.type('Quieter floor');
    await page.keyboard.press('Enter');
    await list.getByRole('heading', { name: 'Quieter floor' }).waitFor();
    await page.getByRole('button', { name: 'Bring the demo back' }).click();
    await list.getByRole('heading', { name: 'Quieter floor (yours)' }).waitFor();
    await list.getByRole('heading', { name: 'Rumble filter for the record deck' }).waitFor();
  });

  test('preferences act at once and stay', async () => {
    const page = await bench.page('/sheet/demo-trim');
    await page.getByRole('button', { name: 'Prefer' }).click();
    await page.getByText('Comma, 2,2k').click();
    await page.getByText('Dark', { exact: true }).click();
    await page.keyboard.press('Escape');
    await page.reload();
    await reading(page, /edge, 3 dB down/)
      .getByText(/^\d+,\d+\skHz$/)
      .waitFor();
    expect(await page.locator('html').getAttribute('data-theme')).toBe('dark');
  });
});

test('pages carry a strict policy and the usual headers', async () => {
  const { headers } = await fetch(url('/'));
  const policy = headers.get('content-security-policy') ?? '';
  expect(policy).toMatch(
    /default-src 'self'.*script-src 'self' 'nonce-[^']+' 'strict-dynamic'.*object-src 'none'.*frame-ancestors 'none'/,
  );
  expect(policy).not.toMatch(/unsafe-(inline|eval)/);
  expect(headers.get('x-content-type-options')).toBe('nosniff');
  expect(headers.get('referrer-policy')).toBe('no-referrer');
  expect(headers.get('x-powered-by')).toBeNull();
});
