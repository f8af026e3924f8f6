import { NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { becomes, freshBench, reading, typeOver } from './support/browser';

const bench = freshBench();

test('a lesson is begun, its blocks light parts of the circuit, the sheet answers, and the book knows', async () => {
  const page = await bench.page('/lessons');
  await page
    .getByRole('button', { name: 'Begin: A loop of two integrators, weight by weight' })
    .click();
  const lesson = page.getByRole('complementary', { name: 'Lesson' });
  await lesson.getByText('f₀ at 1 kHz').waitFor();

  // A block lights its parts, and a part its block.
  const damping = lesson.getByRole('button', { name: '1/Q: made by R6 and R7' });
  const lit = (name: RegExp) =>
    page
      .getByRole('button', { name })
      .evaluate((e) => e.parentElement?.getAttribute('class') ?? '');
  await damping.hover();
  await becomes(() => lit(/^R6,/), /lit/);
  expect(await lit(/^R1,/)).not.toMatch(/lit/);
  await page.getByRole('button', { name: /^R6,/ }).hover();
  await becomes(async () => (await damping.getAttribute('class')) ?? '', /lit/);
  expect(await seriousInBoth(page, 'aside')).toEqual(NOTHING_SERIOUS);

  // f0 by both integrators, the gain by the input, Q by the damping.
  for (const [part, value] of [
    ['R1', '5k'],
    ['R3', '4k82'],
    ['R4', '4k82'],
    ['R6', '150k'],
  ])
    await typeOver(page, page.getByRole('button', { name: new RegExp(`^${part},`) }), value);
  await lesson.getByText('That is it').waitFor();
  await page.goto(page.url().replace(/\/sheet.*/, '/lessons'));
  await page.getByText('1 of 15 passed').waitFor();
  await page
    .getByRole('navigation', { name: 'Screens' })
    .getByRole('link', { name: 'Book', exact: true })
    .click();
  await page
    .getByText(/^Learned: A loop of two integrators/)
    .first()
    .waitFor();
});

test('boards are put on the plan, what they lack is bought, and they can be built', async () => {
  const page = await bench.page('/plan');
  await page.getByText('Nothing is to be done.').waitFor();
  await page.getByRole('button', { name: 'Boards to build' }).click();
  await page.getByRole('combobox', { name: 'Sheet' }).fill('Hum notch');
  await page.getByRole('option', { name: /Hum notch/ }).waitFor({ state: 'attached' });
  await page.keyboard.press('Enter');
  await page.getByRole('spinbutton', { name: /^Boards, beside/ }).fill('2');
  await page.getByRole('button', { name: 'Put it on the plan' }).click();

  const waiting = page.getByRole('region', { name: 'Waits for something' });
  await waiting.getByText('Build 2 boards', { exact: true }).waitFor();
  await page
    .getByRole('region', { name: 'Can be begun now' })
    .getByText(/^Order \d+ parts/)
    .waitFor();
  expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);

  // Ordered elsewhere, and come: they lie in the drawer, and nothing is waited for.
  const parts = page.getByRole('region', { name: 'Parts to order' });
  await parts.getByRole('button', { name: 'Ordered elsewhere …' }).click();
  await page.getByLabel('Here by, if known').fill('2026-12-05');
  await page.getByRole('button', { name: 'All of it is ordered' }).click();
  await waiting
    .getByText(/on the way, by/)
    .first()
    .waitFor();
  await page.reload();
  await parts.getByRole('button', { name: 'All of it is here' }).click();
  const now = page.getByRole('region', { name: 'Can be begun now' });
  await now.getByText('Build 2 boards', { exact: true }).waitFor();
  const hours = now.getByRole('spinbutton', { name: /^Hours for Build 2 boards/ });
  await hours.fill('6');
  await page
    .getByRole('status')
    .getByText(/^7 h in all, 6 h of it/)
    .waitFor();

  await page.goto(page.url().replace(/\/plan.*/, '/sheet/demo-hum/parts'));
  await becomes(
    () =>
      reading(page, /resistor/i, 4)
        .first()
        .innerText(),
    /\d/,
  );
});
