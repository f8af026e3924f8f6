import type { Page } from 'playwright-core';
import { listen, missedWhileTurned } from '../e2e/support/playing';
import { line } from './measure';

const SECONDS = 60;

/** What is missing from a minute of a voice that sounds while its control is moved. */
export async function benchPlaying(page: Page, url: string): Promise<void> {
  await page.goto(`${url}/sheet/demo-voice`);
  const dock = await listen(page);
  await page.waitForTimeout(3000);
  const { missed, pieces, edits } = await missedWhileTurned(page, dock, SECONDS);
  line(`Pieces missed in a minute of playing, ${edits} edits`, missed, '');
  line('  of so many', pieces, '');
}
