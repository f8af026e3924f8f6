import { aged, freshBench, reading, typeOver } from './support/browser';

const bench = freshBench();

test('an ask is weighed up: sorted, filtered, laid over, and one taken', async () => {
  const page = await bench.page('/sheet/demo-speech');
  await page.getByRole('button', { name: 'Weigh up' }).click();
  const panel = page.getByRole('region', { name: 'Weigh up' });
  await panel.getByText(/\d+ designs, each solved/).waitFor();
  // The table shows its rows as they are scrolled to; their number is said above it.
  const said = await panel.getByText(/\d+ designs, each solved/).textContent();
  expect(Number(/\d+/.exec(said ?? '')![0])).toBeGreaterThan(30);

  // Sorted by what it stops, the steepest comes first; laid over, it is on the picture; taken, the
  // sheet is designed by it.
  await panel.getByText('Response', { exact: true }).click();
  const header = panel.getByRole('columnheader', { name: /Stops dB/ });
  await header.click();
  await header.click();
  const rows = panel.getByRole('row').filter({ has: page.getByRole('checkbox') });
  const steepest = await rows.first().textContent();
  expect(steepest).toMatch(/steepest|rippled/);
  await rows.first().getByRole('checkbox').check();
  await page
    .getByRole('list', { name: 'Layers' })
    .getByText(/steepest|rippled/)
    .waitFor();
  await panel.getByRole('button', { name: /^Take / }).click();
  await page.getByRole('button', { name: /Shape: (steepest|rippled)/ }).waitFor();
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'Shape: flat top' }).waitFor();
  await panel.getByRole('button', { name: 'Close the weigh-up' }).click();
  await page.getByRole('region', { name: 'Circuit' }).waitFor();
});

test('what the ask comes to is said beside it, and a circuit that has not what was asked says so', async () => {
  const page = await bench.page('/sheet/demo-steep');
  const about = page.getByRole('button', { name: 'What this comes to' });
  await about.click();
  await page.getByText(/Order 5 is the least that meets the limits/).waitFor();
  const hum = await bench.page('/sheet/demo-hum');
  await hum.getByRole('button', { name: /^Topology/ }).click();
  await hum.getByRole('menuitem', { name: 'Twin-T notch', exact: true }).click();
  await hum.getByRole('button', { name: /^Topology: a twin-T/ }).waitFor();
  await hum.getByRole('button', { name: 'What this comes to' }).click();
  await hum.getByText(/own Q is 0\.25; the asked 4 needs another circuit/).waitFor();
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
  await typeOver(page, page.getByRole('button', { name: /^Lift/ }), '-4');
  await page.getByRole('button', { name: /^Stage 1, Dip with a made coil/ }).waitFor();
  await become(/\(band-pass\)/);
  await typeOver(page, page.getByRole('button', { name: /^Upper edge: \d/ }), '20k');
  await reading(page, /Upper edge, 3[.,]01\sdB down/, 1)
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
  for (const figure of ['f0 of stage 2', 'Q of stage 2']) {
    const slider = page.getByRole('slider', { name: figure });
    const before = await slider.getAttribute('aria-valuetext');
    await slider.press('ArrowUp');
    await page.waitForFunction(
      ([label, old]) =>
        document.querySelector(`[aria-label="${label}"]`)?.getAttribute('aria-valuetext') !== old,
      [figure, before] as const,
    );
  }
});

test('a bank is made, a channel moved, a known part given, and it is all there after a reload', async () => {
  const page = await bench.page('/sheet/demo-bank');
  await page.getByRole('img', { name: /^Level of every channel/ }).waitFor();
  await typeOver(page, page.getByRole('button', { name: /^Centre of channel 1/ }), '80');
  await typeOver(page, page.getByRole('button', { name: /^Known R3 of stage 1/ }), '39k');
  await page.getByRole('button', { name: /^Known R3 of stage 1.*39/ }).waitFor();
  await page.getByRole('button', { name: 'Add a channel' }).click();
  await page.getByRole('button', { name: 'Channel 9', exact: true }).waitFor();
  await aged(page);
  await page.reload();
  await page.getByRole('button', { name: 'Channel 9', exact: true }).waitFor();
  await page.getByRole('button', { name: /^Known R3 of stage 1.*39/ }).waitFor();
});
