import { aged, Bench, downloaded, reading, typeOver, url } from './support/browser';

describe('nothing is lost', () => {
  let bench: Bench;
  beforeEach(async () => {
    bench = await Bench.open();
  });

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
    const alert = page.getByRole('alert').filter({ hasText: 'Not imported' });
    await alert.getByText(/cut\.json: The file is not JSON/).waitFor();
    await alert.getByText(/foreign\.json: This is not a sheet: its format is “other”/).waitFor();
    await alert.getByText(/half\.json: The sheet cannot be read at “title”: is missing/).waitFor();
    expect(await sheets.count()).toBe(before);
  });

  test('when the program cannot be drawn at all, every sheet is still handed over, and can be imported', async () => {
    const before = await bench.page('/sheet/demo-rumble');
    await typeOver(before, before.getByRole('button', { name: /^R1/ }), '33k3');
    await before.getByRole('button', { name: /^R1, 33k3/ }).waitFor();
    await aged(before);
    await before.close();
    const page = await bench.context.newPage();
    // The shell asks for the scheme while it draws itself; everything around it stays as it is.
    await page.addInitScript(() => {
      const real = window.matchMedia.bind(window);
      window.matchMedia = (query) => {
        if (query.includes('prefers-color-scheme')) throw new Error('a fault on purpose');
        return real(query);
      };
    });
    await page.goto(url('/'));
    await page.getByRole('alert').getByText('a fault on purpose').waitFor();
    const file = await downloaded(page, () =>
      page.getByRole('button', { name: 'Export every sheet' }).click(),
    );
    const titles = (JSON.parse(file.content.toString()) as { title: string }[]).map((s) => s.title);
    expect(titles).toContain('Rumble filter for the record deck');
    await page.close();

    const after = await bench.page();
    await after.getByText(`${titles.length} sheets in this browser`).waitFor();
    await after
      .getByLabel('Sheet files to import')
      .setInputFiles({ name: file.name, mimeType: 'application/json', buffer: file.content });
    await after.getByText(`${2 * titles.length} sheets in this browser`).waitFor();
    await after
      .getByRole('link', { name: 'Open Rumble filter for the record deck' })
      .first()
      .click();
    await after.getByRole('button', { name: /^R1, 33k3/ }).waitFor();
  });

  test('an edit older than 300 ms survives a sudden reload', async () => {
    const page = await bench.page('/sheet/demo-rumble');
    await typeOver(page, page.getByRole('button', { name: /^R1/ }), '33k3');
    await page.getByRole('button', { name: /^R1, 33k3/ }).waitFor();
    await aged(page);
    await page.reload();
    await page.getByRole('button', { name: /^R1, 33k3/ }).waitFor();
  });

  test('two tabs on one sheet: the one that loses goes on as a copy by itself, and is told', async () => {
    const [one, two] = [await bench.page('/sheet/demo-trim'), await bench.page('/sheet/demo-trim')];
    const rename = async (page: typeof one, title: string) => {
      await page.getByRole('button', { name: /: rename$/ }).click();
      await page.getByLabel('Name of the sheet').fill(title);
    };
    await rename(one, 'From one');
    await rename(two, 'From two');
    // Both are ready; both are entered before either hears of the other.
    await Promise.all([one.keyboard.press('Enter'), two.keyboard.press('Enter')]);
    const told = [one, two].map((p) =>
      p
        .getByRole('status')
        .getByText(/Another tab has changed/)
        .waitFor({ timeout: 10_000 }),
    );
    // Exactly one of them is told, whichever came second; the other stays where it was.
    const loser = await Promise.any(told.map((t, i) => t.then(() => i)));
    const [lost, won] = loser === 0 ? [one, two] : [two, one];
    await lost.getByRole('button', { name: /this tab’s copy.*: rename$/ }).waitFor();
    await lost.waitForURL((at) => !at.pathname.includes('demo-trim'));
    expect(won.url()).toContain('demo-trim');
    expect(await won.getByText(/Another tab has changed/).count()).toBe(0);
    await won.goto(url('/'));
    await won.getByRole('heading', { name: /^From/ }).nth(1).waitFor();
    const titles = await won
      .getByRole('list', { name: 'Sheets' })
      .getByRole('heading')
      .allTextContents();
    expect(titles.filter((t) => t.startsWith('From'))).toHaveLength(2);
    await Promise.allSettled(told);
  });

  test('deleted in another tab: said at once, and the person chooses', async () => {
    const [one, two] = [await bench.page('/sheet/demo-trim'), await bench.page('/')];
    await one.getByRole('button', { name: /^R1/ }).waitFor();
    await two.getByRole('button', { name: 'Actions for Top trimmed on the keyboard line' }).click();
    await two.getByRole('menuitem', { name: 'Delete' }).click();
    await one
      .getByRole('alert')
      .getByText(/was deleted in another tab/)
      .waitFor();
    await one.getByRole('button', { name: /: rename$/ }).click();
    await one.getByLabel('Name of the sheet').fill('Edited after');
    await one.keyboard.press('Enter');
    await two.reload();
    await two.getByRole('button', { name: /Recently deleted \(1\)/ }).waitFor();
    await one.getByRole('button', { name: 'Bring it back' }).click();
    await two.getByRole('heading', { name: 'Edited after' }).waitFor();
    expect(await two.getByText(/Recently deleted/).count()).toBe(0);
  });

  test('full storage: said in words, asked before leaving, and stored by itself when there is room', async () => {
    const page = await bench.page('/sheet/demo-trim');
    await page.getByRole('button', { name: /^R1/ }).waitFor();
    await page.evaluate(FILL_STORAGE);
    await typeOver(page, page.getByRole('button', { name: /^R1/ }), '33k3');
    await page
      .getByRole('alert')
      .getByText(/storage is full.*tried again/)
      .waitFor();
    await page.getByRole('link', { name: 'Shelf', exact: true }).click();
    const dialog = page.getByRole('dialog', { name: /not stored yet/ });
    await dialog.getByRole('button', { name: 'Leave all the same' }).click();
    await page.getByRole('heading', { name: 'Shelf', exact: true }).waitFor();
    await page
      .getByRole('button', { name: 'Actions for Rumble filter for the record deck' })
      .click();
    await page.getByRole('menuitem', { name: 'Duplicate' }).click();
    await page.getByText(/was not duplicated: this browser’s storage is full/).waitFor();
    await page
      .getByRole('button', { name: 'Actions for Rumble filter for the record deck' })
      .click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await page.getByText(/was not deleted: this browser’s storage is full/).waitFor();
    await page.evaluate(
      'delete IDBObjectStore.prototype.put; IDBObjectStore.prototype.put = window.putAsItWas',
    );
    await page.waitForTimeout(4000);
    await page.goto(url('/sheet/demo-trim'));
    await page.getByRole('button', { name: /^R1, 33k3/ }).waitFor();
  });

  test('a damaged record shows by its name, opens as far as it can be read, and stays', async () => {
    const page = await bench.page();
    await page.getByRole('heading', { name: 'Top trimmed on the keyboard line' }).waitFor();
    await page.evaluate(DAMAGE);
    await page.reload();
    await page.getByRole('button', { name: /Open what can be read of “Top trimmed/ }).click();
    await page.getByText(/Left out:/).waitFor();
    await page.getByRole('button', { name: /\(what could be read\): rename$/ }).waitFor();
    await page.goto(url('/sheet/demo-trim'));
    await page
      .getByRole('heading', { name: /“Top trimmed on the keyboard line” cannot be read/ })
      .waitFor();
  });

  test('a worker that dies is noticed, started again, and the figures are those of the edit', async () => {
    const page = await bench.page('/sheet/demo-trim');
    await reading(page, /edge, 3[.,]01\sdB down/)
      .getByText(/Hz/)
      .waitFor();
    for (const worker of page.workers())
      await worker.evaluate('self.close()').catch(() => undefined);
    await typeOver(page, page.getByRole('button', { name: /^C1/ }), '220n');
    await page.getByText(/had stopped and was started again/).waitFor();
    await reading(page, /Upper edge, 3[.,]01\sdB down/)
      .getByText(/^[1-9]\d{0,2}(\.\d+)?\sHz$/)
      .waitFor();
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
    await typeOver(page, page.getByRole('menuitem', { name: 'Rename' }), 'Quieter floor');
    await list.getByRole('heading', { name: 'Quieter floor' }).waitFor();
    await page.getByRole('button', { name: 'Bring the demo back' }).click();
    await list.getByRole('heading', { name: 'Quieter floor (yours)' }).waitFor();
    await list.getByRole('heading', { name: 'Rumble filter for the record deck' }).waitFor();
    await page.getByRole('textbox', { name: /Find a sheet/ }).fill('quieter');
    await page.getByText('1 of 15 sheets').waitFor();
    expect(await list.getByRole('heading').allTextContents()).toEqual(['Quieter floor (yours)']);
  });

  test('preferences act at once and stay', async () => {
    const page = await bench.page('/sheet/demo-trim');
    await page.getByRole('button', { name: 'Prefer' }).click();
    await page.getByText('Comma, 2,2k').click();
    await page.getByText('Dark', { exact: true }).click();
    await page.keyboard.press('Escape');
    await page.reload();
    await reading(page, /edge, 3[.,]01\sdB down/)
      .getByText(/^\d+,\d+\skHz$/)
      .waitFor();
    expect(await page.locator('html').getAttribute('data-theme')).toBe('dark');
  });
});

/** Runs in the page: every write fails as it does when the disk is full. */
const FILL_STORAGE = `
  window.putAsItWas = IDBObjectStore.prototype.put;
  IDBObjectStore.prototype.put = function () {
    throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
  };
  true`;

/** Runs in the page: half of a stored sheet is lost. */
const DAMAGE = `new Promise((resolve, reject) => {
  const opening = indexedDB.open('jaunty-reed');
  opening.onerror = reject;
  opening.onsuccess = () => {
    const store = opening.result.transaction('sheets', 'readwrite').objectStore('sheets');
    const reading = store.get('demo-trim');
    reading.onsuccess = () => {
      const record = reading.result;
      record.updatedAt = { lost: true };
      record.document.readings[0].measure = 'gone';
      store.put(record).onsuccess = () => { opening.result.close(); resolve(true); };
    };
  };
})`;

test('with motion reduced, menus and windows open and are put away all the same', async () => {
  const bench = await Bench.open('light', 'reduce');
  const page = await bench.page('/sheet/demo-speech');
  await page.getByRole('button', { name: 'Export' }).click();
  const file = await downloaded(page, () =>
    page.getByRole('menuitem', { name: 'Schematic as shown (SVG)' }).click(),
  );
  expect(file.name).toMatch(/schematic\.svg$/);
  await page.getByRole('menu').waitFor({ state: 'hidden' });
  await page.getByRole('button', { name: 'Prefer' }).click();
  await page.getByRole('dialog', { name: 'Preferences' }).waitFor();
  await page.keyboard.press('Escape');
  await page.getByRole('dialog').waitFor({ state: 'hidden' });
  await page.getByRole('button', { name: 'Weigh up' }).click();
  await page.getByText(/designs, each solved/).waitFor();
  expect(bench.faults).toEqual([]);
});

/** Runs in the page: notes at each frame where what bears the awaited text can be pressed. */
const WATCH = `
  const look = () => {
    for (const it of document.querySelectorAll('[role=menuitem], button, label')) {
      if (it.textContent !== window.awaited) continue;
      const { x, y, width, height } = it.getBoundingClientRect();
      if (it.contains(document.elementFromPoint(x + width / 2, y + height / 2)))
        window.placesSeen.add([x, y, width, height].map(Math.round).join(' '));
    }
    requestAnimationFrame(look);
  };
  look()`;

test('what opens stands still from its first frame: a quick press lands where it was aimed', async () => {
  const bench = await Bench.open();
  const page = await bench.page('/sheet/demo-speech');
  await page.evaluate(WATCH);
  for (const [opens, text] of [
    ['Export', 'Picture as shown (PNG)'],
    ['Actions for stage 1', 'Bypass'],
    ['Keep', 'Keep this state'],
    ['Fit parts', 'Round each by itself'],
    ['Prefer', 'Dark'],
  ]) {
    await page.evaluate(`window.awaited = ${JSON.stringify(text)}; window.placesSeen = new Set()`);
    await page.getByRole('button', { name: opens }).first().click();
    await page.waitForTimeout(500);
    const places = await page.evaluate('[...window.placesSeen]');
    expect({ opens, places }).toEqual({ opens, places: [expect.any(String)] });
    await page.keyboard.press('Escape');
    await page.waitForTimeout(300);
  }
});

test('pages carry a strict policy and the usual headers', async () => {
  const { headers } = await fetch(url('/'));
  const policy = headers.get('content-security-policy') ?? '';
  expect(policy).toMatch(
    /default-src 'self'.*script-src 'self' 'nonce-[^']+' 'strict-dynamic' 'wasm-unsafe-eval';.*object-src 'none'.*frame-ancestors 'none'/,
  );
  // Compiled plans are WebAssembly; no text is run.
  expect(policy.replace("'wasm-unsafe-eval'", '')).not.toMatch(/unsafe/);
  expect(headers.get('x-content-type-options')).toBe('nosniff');
  expect(headers.get('referrer-policy')).toBe('no-referrer');
  expect(headers.get('x-powered-by')).toBeNull();
});

test('what is no question for a page is refused, with all headers', async () => {
  const asked: [string, string, number][] = [
    ['GET', '/sheet/%', 400],
    ['GET', '/%c0%80', 400],
    ['GET', `/sheet/${'x'.repeat(65)}`, 404],
    ['GET', `/sheet/${'x'.repeat(4000)}`, 414],
    ['POST', '/', 405],
    ['DELETE', '/sheet/demo-trim', 405],
    ['GET', '/nowhere', 404],
    ['GET', '/icon.svg', 200],
    ['HEAD', '/', 200],
  ];
  for (const [method, path, status] of asked) {
    const answer = await fetch(url(path), { method });
    expect([method, path.slice(0, 20), answer.status]).toEqual([method, path.slice(0, 20), status]);
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff');
    expect(answer.headers.get('referrer-policy')).toBe('no-referrer');
    expect(answer.headers.get('x-frame-options')).toBe('DENY');
    if (status !== 200 || path === '/')
      expect(answer.headers.get('content-security-policy')).toMatch(/frame-ancestors 'none'/);
  }
  const page = await (await fetch(url('/'))).text();
  const script = /\/_next\/static\/[^"']+\.js/.exec(page)![0];
  const file = await fetch(url(script));
  expect(file.headers.get('x-content-type-options')).toBe('nosniff');
  expect(file.headers.get('content-type')).toMatch(/javascript/);
});
