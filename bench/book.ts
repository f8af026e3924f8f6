import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { chromium, type Page } from 'playwright-core';
import { untilServed } from './browser';
import { line, report } from './measure';

const PORT = 4396;
const url = `http://localhost:${PORT}`;
const MANY = { sheets: 1000, takes: 5000, lines: 50_000 };
const QUERIES = ['c2', 'c2 22n', 'hum', 'board 7', 'edge 3.4', 'nothing of the kind'];

/** A browser with a thousand sheets, five thousand takes and fifty thousand lines: opened, searched, archived. */
export async function benchBook(): Promise<void> {
  const server = spawn('node', ['scripts/serve.mjs'], {
    stdio: 'ignore',
    env: { ...process.env, PORT: String(PORT) },
  });
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    await untilServed(`${url}/`);
    const context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      acceptDownloads: true,
    });
    const page = await context.newPage();
    await page.goto(`${url}/`);
    await page.getByText(/sheets in this browser/).waitFor();
    await page.evaluate(`(${FILL})(${JSON.stringify(MANY)})`);
    await page.goto(`${url}/`);
    // Cards are made once, beside the page.
    await page.getByText(/^1014 sheets/).waitFor({ timeout: 120_000 });

    const [shelf, book]: number[][] = [[], []];
    for (let i = 0; i < 5; i++) {
      const fresh = await context.newPage();
      let from = performance.now();
      await fresh.goto(`${url}/`);
      await fresh
        .getByRole('link', { name: /^Open / })
        .first()
        .waitFor();
      shelf.push((performance.now() - from) / 1000);
      from = performance.now();
      await fresh.goto(`${url}/book`);
      await fresh.getByRole('option').first().waitFor();
      book.push((performance.now() - from) / 1000);
      await fresh.close();
    }
    report('Shelf of 1,014 sheets, from the address to its cards', shelf, 's');
    report('Book of 50,000 lines, from the address to its lines', book, 's');
    await search(page);
    await archive(page);
  } finally {
    await browser.close();
    server.kill();
  }
}

async function search(page: Page): Promise<void> {
  const from = performance.now();
  await page.goto(`${url}/book`);
  await page.getByText('50000 lines').waitFor();
  line('All 50,000 lines at hand for searching, after', (performance.now() - from) / 1000, 's');
  const times: number[] = [];
  for (const query of QUERIES)
    times.push(await page.evaluate<number>(`(${TYPE})(${JSON.stringify(query)})`));
  report('A search typed, to the frame that shows its answer', times, 'ms');
}

async function archive(page: Page): Promise<void> {
  await page.goto(`${url}/archive`);
  let from = performance.now();
  const coming = page.waitForEvent('download', { timeout: 600_000 });
  await page.getByRole('button', { name: 'Make an archive' }).click();
  const path = await (await coming).path();
  line('An archive of all of it made', (performance.now() - from) / 1000, 's');
  line('  its size', readFileSync(path).length / 1e6, 'MB');
  const other = await page.context().browser()!.newContext();
  const there = await other.newPage();
  await there.goto(`${url}/archive`);
  from = performance.now();
  await there.getByLabel('Archive to take in').setInputFiles(path);
  await there
    .getByRole('button', { name: 'Merge it with what is here' })
    .waitFor({ timeout: 600_000 });
  line('  looked through in another browser', (performance.now() - from) / 1000, 's');
  from = performance.now();
  await there.getByRole('button', { name: 'Merge it with what is here' }).click();
  await there.getByText('The archive is taken in.').waitFor({ timeout: 600_000 });
  line('  and taken in', (performance.now() - from) / 1000, 's');
  const heap = await there.evaluate<number>('performance.memory.usedJSHeapSize');
  line('  heap of the page after it', heap / 1e6, 'MB');
}

/** Runs in the page: copies of a demo sheet, takes of their boards, and lines about them. */
const FILL = `async ({ sheets, takes, lines }) => {
  const open = () => new Promise((done) => { const q = indexedDB.open('jaunty-reed'); q.onsuccess = () => done(q.result); });
  const db = await open();
  const written = (store, records) => new Promise((done, failed) => {
    const t = db.transaction([store], 'readwrite');
    for (const r of records) t.objectStore(store).put(r);
    t.oncomplete = done; t.onerror = () => failed(t.error);
  });
  const made = await new Promise((done) => { const q = db.transaction(['sheets']).objectStore('sheets').get('demo-speech'); q.onsuccess = () => done(q.result.document); });
  const at = (i) => new Date(Date.parse('2026-01-01') + i * 480000).toISOString();
  const perSheet = takes / sheets;
  const takeIds = (s) => Array.from({ length: perSheet }, (_, k) => 't' + (s * perSheet + k));
  await written('sheets', Array.from({ length: sheets }, (_, s) => {
    const id = 'many' + s;
    const { demo, ...rest } = made;
    const boards = [{ id: 'b1', name: 'Board ' + (s % 9), values: {}, takes: takeIds(s), note: '' }];
    return { id, updatedAt: at(s), revision: 1, deletedAt: null, refers: takeIds(s).map((t) => 'takes/' + t),
      document: { ...rest, id, title: 'Sheet ' + s, revision: 1, createdAt: at(s), updatedAt: at(s), boards } };
  }));
  for (let from = 0; from < takes; from += 1000)
    await written('takes', Array.from({ length: 1000 }, (_, k) => {
      const id = 't' + (from + k);
      const hz = Array.from({ length: 400 }, (_, i) => 20 * 1000 ** (i / 399));
      return { id, document: { format: 'jaunty-reed/take', version: 1, id, name: 'sweep ' + id, at: at(k), frequenciesHz: hz,
        levelDb: hz.map((f) => -10 * Math.log10(1 + (f / 3400) ** 8) + 0.01 * Math.sin(f * (k + 1))), note: '' } };
    }));
  const words = ['hum', 'hiss', 'louder', 'the hall', 'too bright'];
  for (let from = 0; from < lines; from += 5000)
    await written('book', Array.from({ length: 5000 }, (_, k) => {
      const n = from + k;
      const id = 'e' + n;
      const change = { kind: 'value', what: 'C' + (n % 9), before: (n % 47) + 'n', after: (n % 33) + 'n' };
      const sheet = 'many' + (n % sheets);
      return { id, sheet, at: at(n), touched: n + 1, document: { format: 'jaunty-reed/book-entry', version: 1, id, name: 'Sheet ' + (n % sheets),
        kind: 'design', at: at(n), until: at(n), sheet, changes: [change], steps: [{ at: at(n), changes: [change], from: 'a' + n, to: 'b' + n }],
        note: n % 5 === 0 ? words[(n / 5) % 5] : '', pictures: [] } };
    }));
  db.close();
}`;

/** Runs in the page: a search typed at once, and the time to the frame after its answer. */
const TYPE = `(query) => new Promise((done) => {
  const field = document.getElementById('book-search');
  const status = document.querySelector('[role=status]');
  const set = (text) => {
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(field, text);
    field.dispatchEvent(new Event('input', { bubbles: true }));
  };
  set('');
  setTimeout(() => {
    const before = status.textContent;
    const from = performance.now();
    set(query);
    const look = () => (status.textContent !== before ? done(performance.now() - from) : requestAnimationFrame(look));
    requestAnimationFrame(look);
  }, 500);
})`;
