import { readWav } from '@/core/formats/wav';
import { NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { becomes, downloaded, freshBench } from './support/browser';
import { listen } from './support/playing';

const bench = freshBench();

test('the solved circuit is heard on while it is edited, and muted by a key', async () => {
  const page = await bench.page('/sheet/demo-voice');
  const dock = await listen(page);
  await becomes(() => dock.innerText(), /[1-9]\d? % of one core/);
  const bars = dock
    .getByRole('img', { name: /^Spectrum/ })
    .locator('path')
    .first();
  const highest = async () => {
    const heights = ((await bars.getAttribute('d')) ?? '').match(/v-([\d.]+)/g) ?? [];
    return Math.max(0, ...heights.map((h) => Number(h.slice(2))));
  };
  await becomes(async () => String((await highest()) > 10), /true/);

  // It goes on while its control is moved; how much is missing is counted where no other browser works.
  await page.getByRole('slider', { name: 'Control Cut-off' }).focus();
  for (let n = 0; n < 6; n++) await page.keyboard.press(n < 3 ? 'ArrowRight' : 'ArrowLeft');
  await becomes(async () => String((await highest()) > 10), /true/);

  await page.keyboard.press('m');
  await dock.getByRole('button', { name: 'Muted' }).waitFor();
  await page.keyboard.press('m');

  // A key of the computer plays while the keyboard has the focus, and means nothing else then.
  await dock.getByRole('group', { name: /^Keyboard/ }).focus();
  await page.keyboard.press('k');
  expect(await page.getByRole('textbox', { name: 'Name of the keep' }).count()).toBe(0);
  await dock.getByRole('button', { name: 'Stop' }).click();
  await dock.getByRole('button', { name: 'Play', exact: true }).waitFor();
});

test('it is heard against another circuit, and written to a file of volts', async () => {
  const page = await bench.page('/sheet/demo-voice');
  const dock = await listen(page);
  await dock.getByRole('button', { name: 'Against: nothing' }).click();
  await page.getByRole('menuitem', { name: 'transistor ladder' }).click();
  const sides = dock.getByRole('group', { name: 'Which of two is heard' });
  await sides.getByRole('button', { name: /^B/ }).click();
  await becomes(
    async () =>
      String(await sides.getByRole('button', { name: /^B/ }).getAttribute('aria-pressed')),
    /true/,
  );
  await page.keyboard.press('x');
  await becomes(
    async () => sides.getByRole('button', { name: /^A/ }).getAttribute('aria-pressed'),
    /true/,
  );

  // Eight seconds are written while two circuits go on playing.
  const { name, content } = await downloaded(
    page,
    () => dock.getByRole('button', { name: /to a WAV file/ }).click(),
    120,
  );
  expect(name).toBe('low-pass-voice-for-the-keyboard.wav');
  const { samples, rate, depth } = readWav(new Uint8Array(content), name);
  expect([samples.length, rate, depth]).toEqual([8 * 48_000, 48_000, '32f']);
  expect(Math.sqrt(samples.reduce((s, v) => s + v * v, 0) / samples.length)).toBeGreaterThan(0.1);
}, 180_000);

test('a filter of op-amps is heard too; a file that is no sound is refused; nothing is serious', async () => {
  const page = await bench.page('/sheet/demo-hum');
  const dock = await listen(page);
  const choosing = page.waitForEvent('filechooser');
  await dock.getByRole('button', { name: /^Sound/ }).click();
  await page.getByRole('menuitem', { name: /A WAV file of yours/ }).click();
  await (
    await choosing
  ).setFiles({
    name: 'letter.wav',
    mimeType: 'audio/wav',
    buffer: Buffer.from('dear hall'),
  });
  await page.getByText(/“letter\.wav” cannot be played: it is no WAV file/).waitFor();
  await dock.getByRole('button', { name: /^Pitch/ }).click();
  await page.keyboard.type('1');
  await page.keyboard.press('Enter');
  await page.getByText(/It must be from 8 to 12000/).waitFor();
  await page.keyboard.press('Escape');
  await page.mouse.move(640, 120);
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);
});
