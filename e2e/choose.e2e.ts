import { Bench, reading } from './support/browser';

let bench: Bench;
beforeEach(async () => {
  bench = await Bench.open();
});
afterEach(async () => {
  expect(bench.faults).toEqual([]);
  await bench.close();
});

test('an ask is weighed up: sorted, filtered, laid over, and one taken', async () => {
  const page = await bench.page('/sheet/demo-speech');
  await page.getByRole('button', { name: 'Weigh up' }).click();
  const dialog = page.getByRole('dialog', { name: 'Weigh up' });
  await dialog.getByText(/\d+ designs, each solved/).waitFor();
  const rows = dialog.getByRole('row', { name: /stages|ladder|leapfrog|loops|notches/ });
  expect(await rows.count()).toBeGreaterThan(30);

  // Sorted by cost, the cheapest comes first; taken, the sheet is designed by it.
  await dialog.getByRole('columnheader', { name: /Stops dB/ }).click();
  await dialog.getByRole('columnheader', { name: /Stops dB/ }).click();
  const steepest = await rows.first().textContent();
  expect(steepest).toMatch(/steepest|rippled/);
  await rows.first().getByRole('checkbox').check();
  await dialog.getByRole('img', { name: /^Level/ }).waitFor();
  await dialog.getByRole('button', { name: /^Take / }).click();
  await dialog.waitFor({ state: 'hidden' });
  await page.getByRole('button', { name: /Shape: (steepest|rippled)/ }).waitFor();
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'Shape: flat top' }).waitFor();
});

test('the ask becomes a notch, a peak and a band, each designed at once', async () => {
  const page = await bench.page('/sheet/demo-trim');
  const become = async (kind: RegExp) => {
    await page.getByRole('button', { name: /^Kind/ }).click();
    await page.getByRole('menuitem', { name: kind }).click();
  };
  await become(/\(notch\)/);
  await page.getByRole('button', { name: /^Centre frequency/ }).waitFor();
  await become(/\(peak\)/);
  await page.getByRole('button', { name: /^Lift/ }).click();
  await page.keyboard.type('-4');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Stage 1, Dip with a made coil/ }).waitFor();
  await become(/\(band-pass\)/);
  await page.getByRole('button', { name: /^Upper edge: \d/ }).click();
  await page.keyboard.type('20k');
  await page.keyboard.press('Enter');
  await reading(page, /Upper edge, 3 dB down/, 1)
    .getByText(/^(19|20)/)
    .waitFor();
});

test('every lens shows its picture, and a pole can be moved with the keys', async () => {
  const page = await bench.page('/sheet/demo-speech');
  const tab = (name: string) => page.getByRole('tab', { name }).click();
  await tab('Delay');
  await page.getByRole('group', { name: 'Group delay over frequency' }).waitFor();
  await tab('Time');
  await page.getByRole('img', { name: /^Charge and discharge: ideal reaches/ }).waitFor();
  await page.getByRole('img', { name: /^Tone burst at 3.4/ }).waitFor();
  await tab('Harmonics');
  await page.getByRole('img', { name: /^Harmonics in/ }).waitFor();
  await page.getByRole('slider', { name: /Cut-off/ }).press('ArrowRight');
  await tab('Map');
  const pole = page.getByRole('slider', { name: 'Poles of stage 2' });
  const before = await pole.getAttribute('aria-valuetext');
  await pole.press('ArrowUp');
  await page.waitForFunction(
    ([label, old]) =>
      document.querySelector(`[aria-label="${label}"]`)?.getAttribute('aria-valuetext') !== old,
    ['Poles of stage 2', before] as const,
  );
});

test('a bank is made, a channel moved, a known part given, and it is all there after a reload', async () => {
  const page = await bench.page('/sheet/demo-bank');
  await page.getByRole('img', { name: /^Level of every channel/ }).waitFor();
  await page.getByRole('button', { name: /^Centre of channel 1/ }).click();
  await page.keyboard.type('80');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Known R3 of stage 1/ }).click();
  await page.keyboard.type('39k');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Known R3 of stage 1.*39/ }).waitFor();
  await page.getByRole('button', { name: 'Add a channel' }).click();
  await page.getByRole('button', { name: 'Channel 9', exact: true }).waitFor();
  await page.waitForTimeout(300);
  await page.reload();
  await page.getByRole('button', { name: 'Channel 9', exact: true }).waitFor();
  await page.getByRole('button', { name: /^Known R3 of stage 1.*39/ }).waitFor();
});
