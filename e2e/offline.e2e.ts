import type { Page } from 'playwright-core';
import { aged, becomes, Bench, downloaded, reading, typeOver } from './support/browser';
import { Gate } from './support/gate';
import { listen } from './support/playing';

let gate: Gate;
let bench: Bench;
beforeEach(async () => {
  gate = await Gate.open();
  bench = await Bench.open('light', 'no-preference', [], gate.home);
});
afterEach(async () => {
  expect(bench.faults).toEqual([]);
  await gate.close().catch(() => undefined);
});

/** Waits until the preferences say that the program is in the browser. */
async function kept(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Prefer', exact: true }).click();
  const window = page.getByRole('dialog', { name: 'Preferences' });
  await window.getByText('works: all of it is in this browser').waitFor({ timeout: 60_000 });
  await window.getByRole('button', { name: 'Close' }).click();
  await window.waitFor({ state: 'hidden' });
}

/** How many scripts are kept as they came (an answer that a program made has no address), and which are not. */
const scriptsKept = (page: Page) =>
  page.evaluate(async () => {
    const all = await Promise.all(
      (await caches.keys()).map(async (name) => {
        const cache = await caches.open(name);
        return Promise.all(
          (await cache.keys()).map(async (r) => ({ path: r.url, answer: await cache.match(r) })),
        );
      }),
    );
    const scripts = all.flat().filter(({ path }) => path.endsWith('.js'));
    const made = scripts.filter(({ answer }) => answer?.url === '').map(({ path }) => path);
    return { came: scripts.length - made.length, made };
  });

const rail = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name, exact: true });

test('with the server gone every screen, the engine, listening and export go on, also after a reload', async () => {
  const page = await bench.page('/');
  await kept(page);
  // Of those alone the browser keeps a compiled form. What a worker begins with must not be one.
  const { came, made } = await scriptsKept(page);
  expect(came).toBeGreaterThan(100);
  for (const path of made) expect(path).toMatch(/turbopack-worker/);
  await gate.close();
  await page.reload();

  await page.getByRole('link', { name: 'Open Rumble filter for the record deck' }).click();
  await typeOver(page, page.getByRole('button', { name: /^R1/ }), '33k3');
  await page.getByRole('button', { name: /^R1, 33k3/ }).waitFor();
  const edge = await reading(page, /edge, 3[.,]01\sdB down/).innerText();
  expect(edge).toMatch(/\d\sHz/);
  await aged(page);
  await page.reload();
  await page.getByRole('button', { name: /^R1, 33k3/ }).waitFor();
  await becomes(() => reading(page, /edge, 3[.,]01\sdB down/).innerText(), new RegExp(`^${edge}$`));

  // What belongs to it, by the rail and by the address, though none of them was ever open.
  const sheet = new URL(page.url()).pathname;
  for (const [path, shows] of [
    [`${sheet}/parts`, /Parts/],
    [`${sheet}/board`, /Board|board/],
    [`${sheet}/report`, /Report|report/],
    [`${sheet}/bench`, /Bring in a take/],
    ['/archive', /Make an archive/],
    ['/book?line=none', /lines?/],
  ] as const) {
    await page.goto(gate.home + path);
    await page.getByText(shows).first().waitFor();
  }
  for (const name of ['Drawer', 'Drivers', 'Book', 'Practice', 'Shelf']) {
    await rail(page, name).click();
    await page.getByRole('heading', { level: 1 }).waitFor();
    await page.reload();
    await page.getByRole('heading', { level: 1 }).waitFor();
  }

  await page.goto(`${gate.home}/sheet/demo-voice`);
  const dock = await listen(page);
  await becomes(() => dock.innerText(), /[1-9]\d? % of one core/);
  await dock.getByRole('button', { name: 'Stop' }).click();

  await page.goto(`${gate.home}/sheet/demo-rumble`);
  const file = await downloaded(page, async () => {
    await page.getByRole('button', { name: 'Export' }).click();
    await page.getByRole('menuitem', { name: 'Sheet file (JSON)' }).click();
  });
  expect(file.content.toString()).toContain('33300');
}, 240_000);

test('a newer version is told of, is taken when somebody likes, and leaves other tabs as they are', async () => {
  const page = await bench.page('/sheet/demo-rumble');
  await kept(page);
  const other = await bench.page('/sheet/demo-trim');
  await other.getByRole('heading', { level: 1 }).waitFor();
  // Something of the present version that the newer one does not have.
  const old = '/_next/static/chunks/of-the-earlier-version.js';
  await other.evaluate(async (path) => {
    const [name] = await caches.keys();
    await (await caches.open(name)).put(path, new Response('1'));
  }, old);

  gate.renew();
  await page.reload();
  const newer = (of: Page) => of.getByRole('button', { name: 'Newer version' });
  await newer(page).waitFor({ timeout: 60_000 });
  await newer(other).waitFor({ timeout: 60_000 });

  // Nothing happens by itself, and an edit of the very moment is stored before anything does.
  await newer(page).click();
  await page.getByRole('button', { name: 'Later' }).click();
  await typeOver(page, page.getByRole('button', { name: /^R1/ }), '33k3');
  await newer(page).click();
  await page.getByRole('button', { name: 'Take it now' }).click();
  await newer(page).waitFor({ state: 'detached' });
  await page.getByRole('button', { name: /^R1, 33k3/ }).waitFor();

  await newer(other).click();
  await other.getByText('Another tab has taken a newer version').waitFor();
  await other.keyboard.press('Escape');
  // The earlier version goes on, with what it has not fetched yet too, and what it stores is there.
  await gate.close();
  expect(await other.evaluate(async (path) => (await fetch(path)).status, old)).toBe(200);
  await rail(other, 'Drivers').click();
  await other.getByRole('heading', { name: 'Drivers' }).waitFor();
  await rail(other, 'Sheet').click();
  await typeOver(other, other.getByRole('button', { name: /^R1/ }), '4k99');
  await other.getByRole('button', { name: /^R1, 4k99/ }).waitFor();
  await aged(other);
  await page.goto(`${gate.home}/sheet/demo-trim`);
  await page.getByRole('button', { name: /^R1, 4k99/ }).waitFor();
}, 180_000);
