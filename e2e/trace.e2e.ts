import type { Page } from 'playwright-core';
import { acResponse } from '@/core/analysis/ac/ac';
import { operatingPoint } from '@/core/analysis/dc/operating-point';
import { makeCircuit, type Part } from '@/core/circuit/schema';
import { c, r } from '@/core/circuit/testing/parts';
import { npnTransistor } from '@/core/parts/kinds/transistor';
import type { Sheet } from '@/core/sheet/schema';
import { downloaded, freshBench, reading } from './support/browser';

const bench = freshBench();

interface Said {
  from?: string;
  kind: string;
  value?: string;
  to?: string[];
}

/** Say one sentence by the keyboard alone; the focus lies on the kind of part. */
async function say(page: Page, { from, kind, value, to = [] }: Said): Promise<void> {
  const { keyboard } = page;
  if (from !== undefined) {
    await keyboard.press('Shift+Tab');
    await keyboard.type(from);
    await keyboard.press('Tab');
  }
  await keyboard.type(kind);
  await keyboard.press('Tab');
  if (value !== undefined) {
    await keyboard.type(value);
    await keyboard.press('Tab');
  }
  for (const end of to) {
    await keyboard.type(end);
    await keyboard.press('Tab');
  }
  await keyboard.press('Enter');
}

/** A treadle's filter: two transistors, a coil and a pot that moves its peak. */
const SENTENCES: Said[] = [
  { kind: 'capacitor', value: '15n', to: ['new'] },
  { kind: 'resistor', value: '56k', to: ['new'] },
  { kind: 'npn', to: ['new', 'new'] },
  { from: 'Q1 emitter', kind: 'resistor', value: '1k5', to: ['ground'] },
  { from: 'Q1 collector', kind: 'resistor', value: '4k7', to: ['new'] },
  { kind: 'supply', value: '12' },
  { from: 'Q1 collector', kind: 'capacitor', value: '330n', to: ['new'] },
  { kind: 'potentiometer', value: '50k', to: ['ground', 'new'] },
  { from: 'P1 wiper', kind: 'capacitor', value: '150n', to: ['new'] },
  { kind: 'npn', to: ['V1 plus', 'new'] },
  { from: 'Q2 emitter', kind: 'resistor', value: '8k2', to: ['ground'] },
  { from: 'Q2 base', kind: 'resistor', value: '470k', to: ['V1 plus'] },
  { from: 'Q2 base', kind: 'resistor', value: '220k', to: ['ground'] },
  { from: 'Q2 emitter', kind: 'capacitor', value: '12n', to: ['new'] },
  { kind: 'resistor', value: '2k2', to: ['Q1 base'] },
  { from: 'C4 b', kind: 'coil', value: '500m', to: ['new'] },
  { kind: 'resistor', value: '100k', to: ['V1 plus'] },
  { from: 'L1 b', kind: 'resistor', value: '22k', to: ['ground'] },
  { from: 'L1 b', kind: 'capacitor', value: '4u7', to: ['ground'] },
  { from: 'V1 plus', kind: 'capacitor', value: '100u', to: ['ground'] },
];

/** The same circuit as it stands on the bench, written down by hand. */
function byHand(turn: number): Part[] {
  const q = (id: string, base: string, collector: string, emitter: string): Part => ({
    id,
    kind: 'transistor',
    base,
    collector,
    emitter,
    model: npnTransistor.models![0].model as Extract<Part, { kind: 'transistor' }>['model'],
  });
  return [
    { id: 'in', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
    { id: 'V1', kind: 'voltage-source', plus: 'vcc', minus: '0', dcVolts: 12 },
    c('C1', 'in', 'a', 15e-9),
    r('R1', 'a', 'b1', 56e3),
    q('Q1', 'b1', 'c1', 'e1'),
    r('R2', 'e1', '0', 1500),
    r('R3', 'c1', 'vcc', 4700),
    c('C2', 'c1', 'o', 330e-9),
    {
      id: 'P1',
      kind: 'potentiometer',
      a: 'o',
      b: '0',
      wiper: 'w',
      ohms: 50e3,
      turn,
      taper: 'linear',
      endOhms: 1,
      mismatch: 0,
    },
    c('C3', 'w', 'b2', 150e-9),
    q('Q2', 'b2', 'vcc', 'e2'),
    r('R4', 'e2', '0', 8200),
    r('R5', 'b2', 'vcc', 470e3),
    r('R6', 'b2', '0', 220e3),
    c('C4', 'e2', 'f', 12e-9),
    r('R7', 'f', 'b1', 2200),
    { id: 'L1', kind: 'inductor', a: 'f', b: 'd', henries: 0.5 },
    r('R8', 'd', 'vcc', 100e3),
    r('R9', 'd', '0', 22e3),
    c('C5', 'd', '0', 4.7e-6),
    c('C6', 'vcc', '0', 100e-6),
    r('load', 'o', '0', 100e3),
  ];
}

function levelByHand(turn: number, hz: number): number {
  const { re, im } = acResponse(makeCircuit(byHand(turn)), { frequenciesHz: [hz], probes: ['o'] })
    .probes.o;
  return 20 * Math.log10(Math.hypot(re[0], im[0]));
}

const number = (text: string | null) => Number((text ?? '').replace('−', '-').split(/\s/)[0]);

/** Wait until a cell shows a number close to another. */
async function comesTo(cell: ReturnType<typeof reading>, wanted: number, within: number) {
  const deadline = Date.now() + 8000;
  let shown: string | null = '';
  while (Date.now() < deadline) {
    shown = await cell.textContent();
    if (Math.abs(number(shown) - wanted) <= within) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`expected ${wanted}, read “${shown}”`);
}

test('a two-transistor filter with a coil and a pot is traced by the keyboard alone', async () => {
  const page = await bench.page();
  const { keyboard } = page;
  await page.getByRole('button', { name: 'New sheet' }).focus();
  await keyboard.press('Enter');
  await page.getByRole('radio', { name: /Trace a circuit/ }).focus();
  await keyboard.press('Space');
  await page.getByRole('button', { name: 'Begin the sheet' }).focus();
  await keyboard.press('Enter');
  const sentence = page.getByRole('form', { name: 'Change the circuit' });
  await sentence.waitFor();
  const schematic = page.getByRole('group', { name: /Schematic/ });
  for (const [n, said] of SENTENCES.entries()) {
    await say(page, said);
    await schematic.getByRole('button').nth(n).waitFor();
  }
  await keyboard.press('Escape');
  expect(await schematic.getByRole('button').count()).toBe(SENTENCES.length);

  // Listen at the end of C2, where the pot hangs.
  await page.getByRole('button', { name: 'listen there' }).focus();
  await keyboard.press('Enter');
  await page.getByRole('form', { name: 'Listen at a point' }).waitFor();
  await keyboard.type('P1 a');
  await keyboard.press('Enter');
  const level = reading(page, /Level at 1\skHz/);
  await comesTo(level, levelByHand(0.5, 1000), 0.006);

  // The pot becomes a knob; its turns move the response as the circuit says.
  await schematic.getByRole('button', { name: /^P1/ }).focus();
  await keyboard.press('Enter');
  await keyboard.press('Escape');
  await page.getByRole('button', { name: 'turn it by a knob' }).focus();
  await keyboard.press('Enter');
  const knob = page.getByRole('slider', { name: 'Control P1' });
  await knob.focus();
  for (let n = 0; n < 30; n++) await keyboard.press('ArrowRight');
  await comesTo(level, levelByHand(0.8, 1000), 0.006);

  // At rest: what the equations of the bench circuit say.
  await page.getByRole('tab', { name: 'At rest' }).focus();
  await keyboard.press('Enter');
  const point = operatingPoint(makeCircuit(byHand(0.8)));
  const row = page.getByRole('row', { name: /Q1/ });
  await row.waitFor();
  const pins = (await row.getByRole('cell').nth(0).textContent()) ?? '';
  const volts = (pin: string) => Number(new RegExp(`${pin} ?(−?[\\d.]+)`).exec(pins)?.[1]);
  expect(volts('collector')).toBeCloseTo(point.nodes.c1, 2);
  expect(volts('base')).toBeCloseTo(point.nodes.b1, 2);
  expect(volts('emitter')).toBeCloseTo(point.nodes.e1, 2);

  // The exported file holds the circuit, and undo takes the knob back.
  const file = await downloaded(page, async () => {
    await page.getByRole('button', { name: /Export/ }).click();
    await page.getByRole('menuitem', { name: 'Sheet file (JSON)' }).click();
  });
  const sheet = JSON.parse(file.content.toString()) as Sheet;
  expect(Object.keys(sheet.ways[0].stages[0].parts)).toHaveLength(SENTENCES.length);
  expect(sheet.controls[0]).toMatchObject({ name: 'P1', is: 'turn', at: 0.8 });
});

test('one capacitor across a resistor: the picture follows, the formulas say what still holds, undo takes it back', async () => {
  const page = await bench.page('/sheet/demo-speech');
  const { keyboard } = page;
  const schematic = page.getByRole('group', { name: /Schematic/ });
  const edge = reading(page, /Upper edge/);
  await comesTo(edge, 3.401, 0.001);
  await schematic.getByRole('button', { name: /^R2/ }).click();
  await keyboard.press('Escape');
  await page.getByRole('button', { name: 'across it' }).click();
  await page.getByRole('form', { name: 'Change the circuit' }).waitFor();
  await say(page, { kind: 'capacitor', value: '1n' });
  await comesTo(edge, 3.355, 0.001);
  expect(await schematic.getByRole('button', { name: /^C3, 1n/ }).count()).toBe(1);

  await schematic.getByRole('button', { name: /^C3/ }).click();
  await keyboard.press('Escape');
  await page.getByRole('button', { name: /^Why/ }).click();
  await page
    .getByRole('note')
    .getByText(/With C3 in the circuit the formulas/)
    .waitFor();
  await page.getByRole('button', { name: /^Why/ }).click();
  await page.getByRole('note').waitFor({ state: 'hidden' });
  await page.getByRole('button', { name: 'as designed again' }).click();
  await comesTo(edge, 3.401, 0.001);
  await keyboard.press('Control+z');
  await comesTo(edge, 3.355, 0.001);
});

test('a circuit file opens as a stage that does what the file does', async () => {
  const page = await bench.page();
  const circuit = makeCircuit(byHand(0.25), 'Treadle from the repair box');
  const renamed = JSON.stringify(circuit).replaceAll('"o"', '"out"');
  await page.locator('input[type=file]').setInputFiles({
    name: 'treadle.json',
    mimeType: 'application/json',
    buffer: Buffer.from(renamed),
  });
  await page.getByRole('link', { name: 'Open Treadle from the repair box' }).click();
  await comesTo(reading(page, /Level at 1\skHz/), levelByHand(0.25, 1000), 0.006);
});

test('a part is moved on the grid by pointer and by keys, and a further output is marked and read', async () => {
  const page = await bench.page();
  const { keyboard } = page;
  const circuit = makeCircuit(
    [
      { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
      { id: 'R1', kind: 'resistor', a: 'in', b: 'x', ohms: 10_000 },
      { id: 'C1', kind: 'capacitor', a: 'x', b: '0', farads: 1e-8 },
      { id: 'R2', kind: 'resistor', a: 'x', b: 'out', ohms: 10_000 },
      { id: 'C2', kind: 'capacitor', a: 'out', b: '0', farads: 1e-8 },
    ],
    'Two in a row',
  );
  const levelOf = (net: string) => {
    const { re, im } = acResponse(circuit, { frequenciesHz: [1000], probes: [net] }).probes[net];
    return 20 * Math.log10(Math.hypot(re[0], im[0]));
  };
  await page.locator('input[type=file]').setInputFiles({
    name: 'two.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(circuit)),
  });
  await page.getByRole('link', { name: 'Open Two in a row' }).click();
  const level = reading(page, /Level at 1\skHz(?!,)/);
  await comesTo(level, levelOf('out'), 0.006);
  const part = page.getByRole('group', { name: /Schematic/ }).getByRole('button', { name: /^R2,/ });
  const place = async () => {
    const box = (await part.boundingBox())!;
    return [box.x + box.width / 2, box.y + box.height / 2];
  };
  const movedFrom = async ([x, y]: number[]) => {
    for (let i = 0; i < 50; i++) {
      const now = await place();
      if (Math.hypot(now[0] - x, now[1] - y) > 3) return now;
      await page.waitForTimeout(50);
    }
    throw new Error('It did not move.');
  };
  const before = await place();
  await page.mouse.move(before[0], before[1]);
  await page.mouse.down();
  await page.mouse.move(before[0] + 10, before[1] - 20);
  await page.mouse.move(before[0] + 20, before[1] - 60, { steps: 3 });
  await page.mouse.up();
  const dragged = await movedFrom(before);
  // Moving a part is no question about its value.
  expect(await page.getByRole('textbox', { name: /^Value of R2/ }).count()).toBe(0);
  await part.focus();
  await keyboard.press('Alt+ArrowUp');
  await movedFrom(dragged);
  // Another place, the same circuit.
  await comesTo(level, levelOf('out'), 0.006);

  await page.getByRole('button', { name: 'mark an output' }).click();
  await page.getByRole('form', { name: 'Mark an output' }).waitFor();
  await keyboard.type('C1 a');
  await keyboard.press('Tab');
  await keyboard.type('first');
  await keyboard.press('Enter');
  // Read there, while the path still ends where it did.
  await page.getByRole('button', { name: '+ pin a reading' }).click();
  await page.getByRole('textbox', { name: 'At', exact: true }).fill('1k');
  await page.getByRole('combobox', { name: 'Read at' }).click();
  await page.locator('.ant-select-item-option', { hasText: 'first of stage 1' }).click();
  await page.getByRole('button', { name: 'Pin this reading' }).click();
  await comesTo(reading(page, /Level at 1\skHz, first of stage 1/), levelOf('x'), 0.006);
  await comesTo(level, levelOf('out'), 0.006);
  await page.getByRole('button', { name: /^Passed on: / }).click();
  await page.getByRole('menuitem', { name: 'first' }).click();
  await comesTo(level, levelOf('x'), 0.006);
});
