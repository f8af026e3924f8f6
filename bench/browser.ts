import { spawn } from 'node:child_process';
import { chromium, type Page } from 'playwright-core';
import { percentile, report } from './measure';

const PORT = 4397;
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
    await untilServed(`http://localhost:${PORT}/`);
    await page.goto(`http://localhost:${PORT}/sheet/demo-speech`);
    await page.getByText('✓ built').first().waitFor();

    const loads: number[] = [];
    let scriptBytes = 0;
    for (let i = 0; i < 7; i++) {
      const fresh = await (
        await browser.newContext({ viewport: { width: 1280, height: 800 } })
      ).newPage();
      fresh.on('response', (response) => {
        if (i === 0 && response.request().resourceType() === 'script') {
          void response
            .request()
            .sizes()
            .then(
              (s) => (scriptBytes += s.responseBodySize),
              () => undefined,
            );
        }
      });
      const from = performance.now();
      await fresh.goto(`http://localhost:${PORT}/sheet/demo-speech`);
      await fresh.locator('path[data-layer="built"]').waitFor();
      loads.push((performance.now() - from) / 1000);
      await fresh.waitForTimeout(200);
      await fresh.context().close();
    }
    report('First load of a sheet, warm server, to the drawn curve', loads, 's');
    console.log(
      `Scripts sent for the first screen (compressed)             ${(scriptBytes / 1024).toFixed(0).padStart(9)} KiB`,
    );

    for (const layers of [2, 7]) {
      if (layers === 7) for (let k = 0; k < 5; k++) await keep(page, k);
      const times = await measureEdits(page);
      report(`Value edit to redrawn picture, ${layers} layers: median`, times, 'ms');
      console.log(
        `  p95                                                      ${percentile(times, 0.95).toFixed(1).padStart(9)} ms`,
      );
    }
  } finally {
    await browser.close();
    server.kill();
  }
}

async function untilServed(url: string): Promise<void> {
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
