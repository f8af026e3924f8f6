import { spawn } from 'node:child_process';
import { chromium, type Page } from 'playwright-core';
import { line, percentile, report } from './measure';
import { benchPlaying } from './playing';
import { benchStream } from './stream';

const PORT = 4397;
const url = `http://localhost:${PORT}`;
const EDITS = 60;

/** From a value edit to the redrawn picture, and the first load, in headless Chromium on the production build. */
export async function benchBrowser(): Promise<void> {
  const server = spawn('node', ['scripts/serve.mjs'], {
    stdio: 'ignore',
    env: { ...process.env, PORT: String(PORT) },
  });
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
  try {
    const page = await (
      await browser.newContext({ viewport: { width: 1280, height: 800 } })
    ).newPage();
    await untilServed(`${url}/`);
    await page.goto(`${url}/sheet/demo-speech`);
    await page.getByText('✓ built').first().waitFor();

    const loads: number[] = [];
    let [scriptBytes, workerBytes] = [0, 0];
    for (let i = 0; i < 7; i++) {
      const fresh = await (
        await browser.newContext({ viewport: { width: 1280, height: 800 } })
      ).newPage();
      fresh.on('response', (response) => {
        const request = response.request();
        if (i > 0 || !/\.js(\?|$)/.test(request.url())) return;
        void request.sizes().then(
          ({ responseBodySize: size }) => {
            if (request.resourceType() === 'script') scriptBytes += size;
            else workerBytes += Math.max(0, size);
          },
          () => undefined,
        );
      });
      const from = performance.now();
      await fresh.goto(`${url}/sheet/demo-speech`);
      await fresh.locator('path[data-layer="built"]').waitFor();
      loads.push((performance.now() - from) / 1000);
      await fresh.waitForTimeout(200);
      await fresh.context().close();
    }
    report('First load of a sheet, warm server, to the drawn curve', loads, 's');
    line('Scripts sent for the first screen, compressed', scriptBytes / 1024, 'KiB');
    line('  of the worker, apart', workerBytes / 1024, 'KiB');

    for (const layers of [2, 7]) {
      if (layers === 7) for (let k = 0; k < 5; k++) await keep(page, k);
      const times = await measureEdits(page);
      report(`Value edit to redrawn picture, ${layers} layers`, times, 'ms');
      line('  p95', percentile(times, 0.95), 'ms');
    }
    await benchStream(page, url);
    await benchPlaying(page, url);
  } finally {
    await browser.close();
    server.kill();
  }
}

/** Resolves once the server answers. */
export async function untilServed(url: string): Promise<void> {
  for (let i = 0; i < 100; i++) {
    try {
      if ((await fetch(url)).ok) return;
    } catch {
      // Not yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('The server did not start: is there a build?');
}

async function keep(page: Page, k: number): Promise<void> {
  await page.getByRole('button', { name: /^Keep/ }).click();
  await page.keyboard.type(`keep ${k}`);
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^R1,/ }).click();
  await page.keyboard.type(`${7 + k * 0.5}k`);
  await page.keyboard.press('Enter');
  await page.waitForTimeout(200);
}

/** Runs in the page; as text, because bundlers add helpers to functions that the page does not have. */
const COMMIT_AND_WATCH = `new Promise((resolve) => {
  const shape = () => document.querySelector('path[data-layer="built"]').getAttribute('d');
  const before = shape();
  const from = performance.now();
  const look = () => (shape() !== before ? resolve(performance.now() - from) : requestAnimationFrame(look));
  document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  requestAnimationFrame(look);
})`;

/** Inside the page: commit a value by Enter, and wait for the frame after the built curve's path has changed. */
async function measureEdits(page: Page): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < EDITS; i++) {
    await page.getByRole('button', { name: /^R2,/ }).click();
    const field = page.getByLabel('Value of R2');
    await field.fill(`${(9 + ((i * 7) % 23) / 10).toFixed(2)}k`);
    times.push(await page.evaluate<number>(COMMIT_AND_WATCH));
    await page.waitForTimeout(30);
  }
  return times;
}
