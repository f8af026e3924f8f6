import { NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { freshBench, typeOver } from './support/browser';

const bench = freshBench();

test('a simulated board is swept, its culprit named, and taken as measured; it is there after a reload', async () => {
  const page = await bench.page('/sheet/demo-speech/bench');
  await page.getByRole('group', { name: 'Predicted level over frequency' }).waitFor();
  await page.getByRole('button', { name: 'Sweep the board' }).click();
  await page.getByLabel('What is wrong with it').fill('C2=*1.4');
  await page.getByRole('button', { name: 'Sweep it' }).click();
  const suspects = page.getByRole('list', { name: 'Suspects' });
  const first = suspects.getByRole('button').first();
  await first.filter({ hasText: /^C2, / }).waitFor();
  await page.getByRole('group', { name: 'Take less prediction over frequency' }).waitFor();
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);

  // The readings of this board stand beside what tolerances allow, and the odd ones are marked.
  const readings = page.getByRole('table', { name: 'Readings of all boards' });
  await readings.getByRole('columnheader', { name: 'Board 1' }).waitFor();
  await readings
    .getByRole('row', { name: /^Upper edge/ })
    .getByLabel('outside')
    .waitFor();

  await page.getByRole('button', { name: /as measured$/ }).click();
  await page.getByText(/^Nothing is wrong/).waitFor();
  await page.keyboard.press('Control+z');
  await first.filter({ hasText: /^C2, / }).waitFor();

  // Steps are ticked, and what is read outside its limits is marked.
  const steps = page.getByRole('list', { name: 'Steps' });
  await steps.getByRole('checkbox', { name: 'Resistors' }).check();
  await typeOver(
    page,
    steps.getByRole('button', { name: /^Read at At rest: output of A1/ }),
    '1.5',
  );
  await steps.getByText(/outside/).waitFor();

  // Stored as it was done: the take with its board.
  await page.getByLabel('Notes on Board 1').fill('C2 from the old bag');
  await page.waitForTimeout(400);
  await page.reload();
  await first.filter({ hasText: /^C2, / }).waitFor();
  expect(await page.getByLabel('Notes on Board 1').inputValue()).toBe('C2 from the old bag');
  await steps.getByText(/outside/).waitFor();
  expect(await steps.getByRole('checkbox', { name: 'Resistors' }).isChecked()).toBe(true);
});

test('spot readings are typed; a line that cannot be is named and nothing is taken', async () => {
  const page = await bench.page('/sheet/demo-speech/bench');
  await page.getByRole('button', { name: 'Bring in a take' }).click();
  const dialog = page.getByRole('dialog', { name: 'Bring in a take' });
  await dialog.getByLabel('Readings').fill('100, 0\n1000, zero\n3000, -1');
  await dialog.getByRole('button', { name: 'Take it' }).click();
  await dialog.getByText(/Line 2 of the take cannot be used/).waitFor();
  await dialog
    .getByLabel('Readings')
    .fill('100, 0\n500, 0\n1000, 0\n2000, -0.1\n3400, -3\n5000, -13.5\n8000, -29.8');
  await dialog.getByRole('button', { name: 'Take it' }).click();
  await page.getByText(/^Nothing is wrong|One part off|like a mistake|No part alone/).waitFor();
});

test('a way of a crossover is swept on its own; what the amplifier sees is weighed with it', async () => {
  const page = await bench.page('/sheet/demo-shelf-speaker/bench');
  const choose = async (list: string, option: string) => {
    await page.getByRole('combobox', { name: list }).click();
    await page.getByTitle(option, { exact: true }).last().click();
  };
  await choose('Which path is measured', 'high');
  await page.getByRole('button', { name: 'Sweep the board' }).click();
  await page.getByLabel('What is wrong with it').fill('C1=*1.4');
  await page.getByRole('button', { name: 'Sweep it' }).click();
  const first = page.getByRole('list', { name: 'Suspects' }).getByRole('button').first();
  await first.filter({ hasText: /^C1, / }).waitFor();

  await page.getByRole('button', { name: 'Sweep the board' }).click();
  await page.getByLabel('What is wrong with it').fill('C1=*1.4');
  await choose('What is measured', 'impedance that the source sees');
  await page.getByRole('button', { name: 'Measure it' }).click();
  await page
    .getByRole('group', { name: 'Predicted and measured impedance over frequency' })
    .waitFor();
  await page.getByRole('checkbox', { name: /^Weigh sweep, board 1 with/ }).check();
  await page.getByText(/Weighed with sweep, board 1\./).waitFor();
  await first.filter({ hasText: /^C1, / }).waitFor();
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);

  // The other way has the ohms in common with it, and not its levels.
  await choose('Which path is measured', 'low');
  await page.getByRole('button', { name: /^Remove ohms/ }).waitFor();
  await page.getByRole('button', { name: /^Remove sweep/ }).waitFor({ state: 'detached' });
  // And the capacitor is called by its way now.
  await first.filter({ hasText: /^C1 of high, / }).waitFor();
});
