import {
  chromium,
  type Browser,
  type BrowserContext,
  type Locator,
  type Page,
} from 'playwright-core';

const SWITCHES = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** So much of a trace, or of what a page says, is printed. */
const SHOWN = 1500;

export const url = (path = '/') => `${process.env.REED_URL}${path}`;

/** A browser with an empty profile, and everything that went wrong on its pages. */
export class Bench {
  private static readonly opened = new Set<Bench>();
  readonly faults: string[] = [];
  private constructor(
    private readonly browser: Browser,
    readonly context: BrowserContext,
    private readonly home: string,
  ) {}

  /** @param home address of a server of its own: there the program is kept in the browser too */
  static async open(
    scheme: 'light' | 'dark' = 'light',
    reducedMotion: 'reduce' | 'no-preference' = 'no-preference',
    switches: readonly string[] = [],
    home?: string,
  ): Promise<Bench> {
    const browser = await chromium.launch({
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [...SWITCHES, ...switches],
    });
    const context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      colorScheme: scheme,
      reducedMotion,
      acceptDownloads: true,
    });
    // The program is fetched whole beside each test otherwise, and thrown away with it.
    if (home === undefined)
      await context.addInitScript(() => {
        ServiceWorkerContainer.prototype.register = () => Promise.reject(new Error('not here'));
      });
    const bench = new Bench(browser, context, home ?? url(''));
    Bench.opened.add(bench);
    return bench;
  }

  /** Done after each test, whatever went wrong in it: a browser that stays keeps the run from ending. */
  static async closeAll(): Promise<void> {
    await Promise.all([...Bench.opened].map((bench) => bench.close()));
  }

  /** A page whose script errors, policy violations and requests to other hosts are noted. */
  async page(path = '/'): Promise<Page> {
    const page = await this.context.newPage();
    // With where it came from: what happens rarely has to be found by its trace.
    page.on('pageerror', ({ message, stack = '' }) =>
      this.faults.push(`error: ${message} ${stack.slice(0, SHOWN)}`),
    );
    page.on('console', (message) => {
      if (message.type() === 'error') this.faults.push(`console: ${message.text()}`);
    });
    page.on('request', (request) => {
      if (!/^(data|blob):/.test(request.url()) && !request.url().startsWith(this.home))
        this.faults.push(`request to ${request.url()}`);
    });
    await page.goto(this.home + path);
    return page;
  }

  close(): Promise<void> {
    Bench.opened.delete(this);
    return this.browser.close();
  }
}

/**
 * A bench of its own for each test of a file, on whose pages nothing may go wrong.
 *
 * @returns the bench of the test that runs
 */
export function freshBench(): Pick<Bench, 'page' | 'faults' | 'context'> {
  let now: Bench;
  beforeEach(async () => {
    now = await Bench.open();
  });
  afterEach(() => expect(now.faults).toEqual([]));
  return {
    page: (path) => now.page(path),
    get faults() {
      return now.faults;
    },
    get context() {
      return now.context;
    },
  };
}

/** Type a value into the field that something opens, and commit it. */
export async function typeOver(page: Page, opens: Locator, text: string): Promise<void> {
  await opens.click();
  await page.locator('input:focus').waitFor();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

/**
 * Lets 300 ms of the page’s own time go by: an edit that shows is stored by then, as is promised. A
 * clock outside would run on while a busy page has not yet come to the edit.
 */
export const aged = (page: Page): Promise<unknown> =>
  page.evaluate(() => new Promise((done) => setTimeout(done, 300)));

/**
 * The text of a downloaded file.
 *
 * @param withinSeconds that it takes on the slowest machine
 */
export async function downloaded(
  page: Page,
  act: () => Promise<void>,
  withinSeconds = 30,
): Promise<{ name: string; content: Buffer }> {
  const coming = page.waitForEvent('download', { timeout: 1000 * withinSeconds });
  // Whichever fails first is the one to be told of.
  await Promise.race([act(), coming]);
  const download = await coming.catch(async (error: Error) => {
    const text = await page.locator('body').innerText();
    throw new Error(
      `It was asked for, but nothing was handed over; the page says: ${text.slice(-SHOWN)}`,
      {
        cause: error,
      },
    );
  });
  const chunks: Buffer[] = [];
  for await (const chunk of await download.createReadStream()) chunks.push(chunk as Buffer);
  return { name: download.suggestedFilename(), content: Buffer.concat(chunks) };
}

/** The built value of a reading, as the table shows it. */
export function reading(page: Page, name: string | RegExp, column = 2) {
  return page.getByRole('row', { name }).getByRole('cell').nth(column);
}

/** Wait until a text is as expected. */
export async function becomes(
  read: () => Promise<string | null>,
  pattern: RegExp,
): Promise<string> {
  const deadline = Date.now() + 10_000;
  let text = '';
  while (Date.now() < deadline) {
    text = (await read()) ?? '';
    if (pattern.test(text)) return text;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`expected ${pattern}, read “${text}”`);
}
