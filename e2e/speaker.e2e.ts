import { aged, becomes, freshBench, reading, typeOver } from './support/browser';

const bench = freshBench();

test('a crossover: its rows and figures, a value edited in the network, undone, and there after a reload', async () => {
  const page = await bench.page('/sheet/demo-shelf-speaker');
  const sum = () => reading(page, /^On axis/).textContent();
  const before = await becomes(sum, /^±\d/);
  const network = page.getByRole('group', { name: 'Schematic of the network' });
  const l1 = network.getByRole('button', { name: /^L1/ });
  await typeOver(page, l1, '1m2');
  const after = await becomes(sum, new RegExp(`^(?!${before.replace('.', '\\.')}$)±\\d`));
  await page.getByRole('button', { name: 'Undo' }).click();
  await becomes(sum, new RegExp(`^${before.replace('.', '\\.')}$`));
  await page.getByRole('button', { name: 'Redo' }).click();
  await becomes(sum, new RegExp(`^${after.replace('.', '\\.')}$`));
  await page.getByRole('button', { name: 'Keep', exact: true }).waitFor();
  await aged(page);
  await page.reload();
  await becomes(sum, new RegExp(`^${after.replace('.', '\\.')}$`));
});

test('the sentence moves the split; a slot is added from the keyboard and asked for otherwise', async () => {
  const page = await bench.page('/sheet/demo-shelf-speaker');
  await typeOver(page, page.getByRole('button', { name: /^Split: 2\.5 kHz/ }), '3k');
  await page.getByRole('button', { name: /^low: 2nd low-pass 3/ }).waitFor();
  const add = page.getByRole('button', { name: /in line or across of high/ });
  await add.focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: 'Resistor in line' }).waitFor();
  await page.getByRole('menuitem', { name: 'Resistor in line' }).press('Enter');
  await page.getByRole('button', { name: /^high: Resistor in line/ }).waitFor();
  await page.getByRole('button', { name: /^high: Pad −3\.4 dB/ }).click();
  await typeOver(page, page.getByRole('button', { name: /^Down by/ }), '5');
  await page.getByRole('button', { name: /^high: Pad −5\.0 dB/ }).waitFor();
});

test('a hump is trapped, tuning is taken, and each lens shows its picture', async () => {
  const page = await bench.page('/sheet/demo-shelf-speaker');
  await becomes(() => reading(page, /^On axis/).textContent(), /^±\d/);
  await page
    .getByRole('button', { name: /kHz \+|Hz \+/ })
    .first()
    .click();
  const card = page.getByRole('region', { name: 'Hump' });
  await card
    .getByText(/least load/)
    .first()
    .waitFor();
  await card.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Tune', exact: true }).click();
  await page.getByRole('button', { name: 'Tune on the true drivers' }).click();
  const take = page.getByRole('button', { name: 'Take result 1' });
  await take.waitFor({ timeout: 60_000 });
  await take.click();
  await becomes(() => reading(page, /^On axis/).textContent(), /^±(0|1\.[0-2])/);
  await page.keyboard.press('Escape');
  for (const [tab, title] of [
    ['Textbook', /nominal loads/],
    ['Phase', /Phase at the listener/],
    ['Off-axis', /beside the axis/],
    ['Impedance', /amplifier’s load/],
  ] as const) {
    await page.getByRole('tab', { name: tab }).click();
    await page.getByRole('group', { name: title }).locator('path').first().waitFor();
  }
});

test('drivers: one is copied, put into a box, and a sheet may end in it', async () => {
  const page = await bench.page('/drivers');
  await page.getByRole('button', { name: /^Bass unit, 130 mm/ }).click();
  const sheet = page.getByRole('region', { name: 'Bass unit, 130 mm', exact: true });
  await sheet
    .getByRole('group', { name: 'Impedance over frequency' })
    .locator('path')
    .first()
    .waitFor();
  await sheet.getByRole('button', { name: 'Delete' }).click();
  await page.getByText(/stays: 2 sheets end in it/).waitFor();
  await sheet.getByRole('button', { name: 'Duplicate' }).click();
  const copy = page.getByRole('region', { name: 'Bass unit, 130 mm (copy)' });
  await typeOver(page, copy.getByRole('button', { name: /^Re, / }), '7.2');
  await copy.getByRole('button', { name: /^Re, .*7\.2/ }).waitFor();
  await page.goto(page.url().replace('/drivers', '/sheet/demo-shelf-speaker'));
  const load = () => reading(page, /^Least impedance/).textContent();
  const before = await becomes(load, /Ω/);
  await page.getByRole('button', { name: /^Driver of low/ }).click();
  await page.getByRole('menuitem', { name: 'Bass unit, 130 mm (copy)' }).click();
  await becomes(load, new RegExp(`^(?!${before.replace(/[.]/g, '\\.')}$).*Ω`));
});

test('an active crossover: a way per amplifier, one knob for the split, strain, delay and decay', async () => {
  const page = await bench.page('/sheet/demo-shelf-speaker-active');
  const sum = () => reading(page, /^On axis/).textContent();
  const before = await becomes(sum, /^±\d/);
  await typeOver(page, page.getByRole('button', { name: /^Amplifier gain of high/ }), '20');
  await becomes(sum, new RegExp(`^(?!${before.replace('.', '\\.')}$)±\\d`));
  await page.getByRole('button', { name: 'A knob for the split of low and high' }).click();
  await page.getByRole('button', { name: 'Put the knob in' }).click();
  const knob = page.getByRole('slider', { name: 'Control low to high' });
  await knob.waitFor();
  const placed = await becomes(sum, /^±\d/);
  await knob.focus();
  await page.keyboard.press('Home');
  await becomes(sum, new RegExp(`^(?!${placed.replace('.', '\\.')}$)±\\d`));
  await page.getByRole('tab', { name: 'Strain' }).click();
  await page.getByRole('row', { name: /^Soft dome/ }).waitFor();
  await page.getByRole('tab', { name: 'Delay' }).click();
  await page
    .getByRole('group', { name: /Group delay/ })
    .locator('path')
    .first()
    .waitFor();
  await page.getByRole('tab', { name: 'Decay' }).click();
  await page
    .getByRole('group', { name: /dies away/ })
    .locator('path')
    .first()
    .waitFor();
});

test('a board: a coil is moved by keys and turned, what it shares follows, and the parts are listed', async () => {
  const page = await bench.page('/sheet/demo-shelf-speaker');
  await page.getByText('Humps to trap').waitFor();
  await page.getByRole('tab', { name: 'Board' }).click();
  const pairs = page.getByRole('list', { name: 'Pairs of coils' });
  const first = () => pairs.getByRole('listitem').first().textContent();
  const before = await becomes(first, /L1 and L2: \d/);
  const board = page.getByRole('group', { name: /^Board of/ });
  await board.getByRole('button', { name: /^L1, coil, flat/ }).focus();
  for (let n = 0; n < 3; n++) await page.keyboard.press('ArrowLeft');
  await becomes(first, new RegExp(`^(?!${before.replace(/[.+]/g, '\\$&')}$)L1 and L2`));
  await page.getByRole('button', { name: /^Turn L2/ }).click();
  await board.getByRole('button', { name: /^L2, coil on its edge, [1-9]/ }).waitFor();
  await page.getByText('Cost', { exact: true }).click();
  await page.getByRole('button', { name: 'Take fine parts' }).click();
  await page.keyboard.press('l');
  await page.getByRole('heading', { name: /^Parts for Shelf speaker/ }).waitFor();
  await page.getByText('1.4 mm wire, air core').first().waitFor();
  await page.getByText('1 × Bass unit, 130 mm').waitFor();
});

test('slopes are compared, and one is taken', async () => {
  const page = await bench.page('/sheet/demo-shelf-speaker');
  await page.getByText('Humps to trap').waitFor();
  await page.getByRole('tab', { name: 'Slopes' }).click();
  await page.getByRole('row', { name: /^first order, in phase/ }).waitFor();
  await page.getByRole('button', { name: 'Take fourth order, steep' }).click();
  await page.getByRole('button', { name: /^low: 4th low-pass/ }).waitFor();
});

test('from first drivers to tuned values: begun with two of them, a way renamed, a slot dragged, tuned', async () => {
  const page = await bench.page('/drivers');
  await page.getByRole('button', { name: 'Begin a crossover' }).click();
  const window = page.getByRole('dialog', { name: 'Which drivers?' });
  for (const [way, driver] of [
    [1, 'Bass unit, 130 mm'],
    [2, 'Soft dome, 25 mm'],
  ] as const) {
    await window.getByRole('combobox', { name: `Driver of way ${way}` }).click();
    await page.getByTitle(driver, { exact: true }).last().click();
  }
  await typeOver(page, window.getByRole('button', { name: /^Split 1: 1\.7/ }), '2k2');
  await window.getByRole('textbox', { name: 'Called' }).fill('Window sill');
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: /^Window sill/ }).waitFor();
  await typeOver(page, page.getByRole('button', { name: 'Name of way 2: high' }), 'dome');
  const slots = () =>
    page.getByRole('button', { name: /^dome: (4th high-pass|Pad)/ }).allTextContents();
  expect((await slots()).map((s) => s.slice(6, 9))).toEqual(['4th', 'Pad']);
  const pad = page.getByRole('button', { name: /^dome: Pad/ });
  const section = (await page.getByRole('button', { name: /^dome: 4th/ }).boundingBox())!;
  await pad.hover();
  await page.mouse.down();
  await page.mouse.move(section.x + 20, section.y + 12, { steps: 8 });
  await page.mouse.up();
  await becomes(async () => (await slots()).map((s) => s.slice(6, 9)).join(), /^Pad,4th$/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await becomes(async () => (await slots()).map((s) => s.slice(6, 9)).join(), /^4th,Pad$/);
  const sum = () => reading(page, /^On axis/).textContent();
  const before = await becomes(sum, /^±\d/);
  await page.getByRole('button', { name: 'Tune', exact: true }).click();
  await page.getByRole('button', { name: 'Tune on the true drivers' }).click();
  await page.getByRole('button', { name: 'Take result 1' }).click();
  const after = await becomes(sum, new RegExp(`^(?!${before.replace('.', '\\.')}$)±\\d`));
  expect(parseFloat(after.slice(1))).toBeLessThan(parseFloat(before.slice(1)) / 2);
});
