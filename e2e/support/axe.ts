import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'playwright-core';
import { becomes } from './browser';

const AXE = readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8');

/** Where a lens shows what it finds. */
export const LENS = 'section[aria-label="Lens"]';

interface AxeResult {
  violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
}

/**
 * What axe finds on a page as it stands, in light and in dark.
 *
 * @param within selector of what came to a page that is looked at elsewhere
 */
export async function seriousInBoth(
  page: Page,
  within = ':root',
): Promise<{ light: string[]; dark: string[] }> {
  // Evaluated from outside the page, so the page's own policy stays in force.
  await page.evaluate(AXE);
  const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  const before = await paper();
  const light = await seriousOn(page, within, {});
  await page.emulateMedia({ colorScheme: 'dark' });
  await becomes(async () => String((await paper()) !== before), /true/);
  // Nothing but colours is another.
  return { light, dark: await seriousOn(page, within, { runOnly: ['color-contrast'] }) };
}

/** Nothing of what is looked for, in either. */
export const NOTHING_SERIOUS = { light: [], dark: [] };

/** What axe finds on a page as it is, once nothing on it moves any more. */
async function seriousOn(page: Page, within: string, options: object): Promise<string[]> {
  await page.waitForFunction(() =>
    document.getAnimations().every((a) => a.playState !== 'running'),
  );
  const result = await page.evaluate<AxeResult>(
    `axe.run(${JSON.stringify(within)}, ${JSON.stringify(options)})`,
  );
  return result.violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`);
}
