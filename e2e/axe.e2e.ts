import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'playwright-core';
import { becomes, freshBench } from './support/browser';

const AXE = readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8');

interface AxeResult {
  violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
}

/** Windows by the button that opens them. */
const WINDOWS: Readonly<Record<string, string>> = {
  'New sheet': 'What should it do?',
  'Begin a crossover': 'Which drivers?',
};

describe('axe finds nothing serious, in light and in dark', () => {
  const bench = freshBench();

  test.each([
    ['the shelf', '/', 'Shelf', ''],
    ['a sheet', '/sheet/demo-speech', 'Speech band', ''],
    ['a missing sheet', '/sheet/none', 'no such sheet', ''],
    ['a bank', '/sheet/demo-bank', 'Parts at 63', ''],
    ['a crossover', '/sheet/demo-shelf-speaker', 'Humps to trap', ''],
    ['what is beside the axis', '/sheet/demo-hall-speaker', 'Humps to trap', 'Off-axis'],
    ['an active crossover', '/sheet/demo-shelf-speaker-active', 'Humps, each taken', 'Decay'],
    ['a board', '/sheet/demo-shelf-speaker', 'Humps to trap', 'Board'],
    ['slopes side by side', '/sheet/demo-shelf-speaker', 'Humps to trap', 'Slopes'],
    ['the drivers', '/drivers', 'Level for 2.83 V', ''],
    ['the drawer', '/drawer', 'Nothing lies in it yet', ''],
    ['the weigh-up', '/sheet/demo-speech', 'Speech band', 'Weigh up'],
    ['a new sheet', '/', 'Shelf', 'New sheet'],
    ['a crossover begun', '/drivers', 'Level for 2.83 V', 'Begin a crossover'],
    ['the time lens', '/sheet/demo-trim', 'Top trimmed', 'Time'],
    ['the harmonics', '/sheet/demo-trim', 'Top trimmed', 'Harmonics'],
    ['the map', '/sheet/demo-steep', 'Steep low-pass', 'Map'],
  ])('%s', async (_, path, text, press) => {
    const page = await bench.page(path);
    await page.getByText(new RegExp(text)).first().waitFor();
    if (path.includes('demo-speech')) await page.getByText('✓ built').first().waitFor();
    if (WINDOWS[press]) {
      await page.getByRole('button', { name: press }).click();
      await page.getByRole('dialog', { name: WINDOWS[press] }).waitFor();
    } else if (press === 'Weigh up') {
      await page.getByRole('button', { name: press }).click();
      await page.getByText(/designs, each solved/).waitFor();
    } else if (press !== '') {
      await page.getByRole('tab', { name: press }).click();
      const picture = press === 'Board' ? 'svg[aria-label^="Board of"]' : '[data-picture] svg';
      await page.locator(picture).first().waitFor();
    }
    // Evaluated from outside the page, so the page's own policy stays in force.
    await page.evaluate(AXE);
    const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
    const light = await paper();
    expect(await seriousOn(page)).toEqual([]);
    await page.emulateMedia({ colorScheme: 'dark' });
    await becomes(async () => String((await paper()) !== light), /true/);
    expect(await seriousOn(page)).toEqual([]);
  });
});

/** What axe finds on a page as it is, once nothing on it moves any more. */
async function seriousOn(page: Page): Promise<string[]> {
  await page.waitForFunction(() =>
    document.getAnimations().every((a) => a.playState !== 'running'),
  );
  const result = await page.evaluate<AxeResult>('axe.run()');
  return result.violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`);
}
