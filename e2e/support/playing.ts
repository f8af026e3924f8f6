import type { Locator, Page } from 'playwright-core';
import { becomes, type freshBench } from './browser';

/** A sheet with its dock, playing: the keyboard voice. */
export async function playing(
  bench: Pick<ReturnType<typeof freshBench>, 'page'>,
  path = '/sheet/demo-voice',
): Promise<{ page: Page; dock: Locator }> {
  const page = await bench.page(path);
  await page.getByRole('button', { name: 'Listen to it' }).click();
  const dock = page.getByRole('region', { name: 'Listen' });
  await dock.getByRole('button', { name: 'Play', exact: true }).click();
  await becomes(() => dock.innerText(), /steps a sample/);
  return { page, dock };
}
