import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { AcAnalysis } from '@/core/analysis/ac/ac';
import { boardCircuit } from '@/core/bench/board-circuit';
import { SOUND_CARD } from '@/core/bench/meters';
import { measureRigBoard } from '@/core/bench/rig-board';
import { sweepPlan, sweepSamples } from '@/core/bench/sweep-plan';
import { demoSheets, MADE_AT } from '@/core/demo/sheets';
import { readWav, wavOf } from '@/core/formats/wav';
import { readTakeTable, type MeasuredCurve } from '@/core/library/take-table';
import { levelDb } from '@/core/response/response';
import { playThrough, USUAL_CONVERTERS } from '@/core/rig/sweep-rig';
import { NOTHING_SERIOUS, seriousInBoth } from './support/axe';
import { Bench, downloaded, freshBench } from './support/browser';

const ADDRESS = '/sheet/demo-speech/bench';
const SHEET = demoSheets(MADE_AT).find((s) => s.id === 'demo-speech')!;

async function openSweep(page: Page) {
  await page.getByRole('group', { name: 'Predicted level over frequency' }).waitFor();
  await page.getByRole('button', { name: 'Sweep the board' }).click();
  const dialog = page.getByRole('dialog', { name: 'Sweep the board' });
  await dialog.getByRole('button', { name: 'Check the level' }).waitFor();
  return dialog;
}

/** The take that is there, as the table that is handed out. */
async function takeOf(page: Page): Promise<MeasuredCurve> {
  const save = page.getByRole('button', { name: /as a table$/ }).first();
  await save.waitFor();
  const { content } = await downloaded(page, () => save.click());
  return readTakeTable(content.toString());
}

const meanOf = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
const apart = (a: number, b: number) => Math.abs(((a - b + 540) % 360) - 180);

describe('a simulated board', () => {
  const bench = freshBench();

  test('is swept: its response within 0.1 dB and 1 degree wherever noise allows', async () => {
    const page = await bench.page(ADDRESS);
    const dialog = await openSweep(page);
    await dialog.getByLabel('Board number').fill('5');
    await dialog.getByLabel('Source, dB under full scale').fill('-4');
    await dialog.getByLabel('How often').fill('4');
    await dialog.getByLabel('What is wrong with it').fill('C2=*1.4');
    await dialog.getByRole('button', { name: 'Check the level' }).click();
    await dialog.getByText(/comes back: good/).waitFor();
    await dialog.getByRole('button', { name: 'Measure the loop-back' }).click();
    await dialog.getByText(/^Measured: what converters/).waitFor();
    expect(await seriousInBoth(page)).toEqual(NOTHING_SERIOUS);
    await dialog.getByRole('button', { name: 'Sweep it' }).click();
    await dialog.waitFor({ state: 'detached' });
    const take = await takeOf(page);
    const exact = measureRigBoard(SHEET, {
      seed: 5,
      fault: 'C2=*1.4',
      meter: SOUND_CARD,
      noiseDb: 0,
    });
    const off = take.levelDb.map((db, k) => db - exact.levelDb[k]);
    const loud = take.levelDb.flatMap((db, k) => (db > -40 ? [k] : []));
    expect(loud.length).toBeGreaterThan(60);
    // The level of the simulated source is nobody’s to know.
    const gain = meanOf(loud.map((k) => off[k]));
    for (const k of loud) {
      expect(take.frequenciesHz[k] / exact.frequenciesHz[k]).toBeCloseTo(1, 6);
      expect(Math.abs(off[k] - gain)).toBeLessThan(0.1);
      expect(apart(take.phaseDegrees![k], exact.phaseDegrees![k])).toBeLessThan(1);
    }
    // The suspect is found, and harmonics are told.
    const suspects = page.getByRole('list', { name: 'Suspects' });
    await suspects.getByRole('button', { name: /^C2, / }).waitFor();
    await page.getByText('harmonics', { exact: true }).click();
    await page
      .getByRole('group', { name: 'Harmonics over the frequency of the fundamental' })
      .waitFor();
  });

  test('that cannot be is refused, and nothing is taken', async () => {
    const page = await bench.page(ADDRESS);
    const dialog = await openSweep(page);
    await dialog.getByLabel('What is wrong with it').fill('C99=missing');
    await dialog.getByRole('button', { name: 'Sweep it' }).click();
    await dialog.getByText(/There is no part “C99”.*Nothing was taken/).waitFor();
    expect(await page.getByRole('button', { name: /as a table$/ }).count()).toBe(0);
  });
});

describe('recorded elsewhere', () => {
  const bench = freshBench();
  const { circuit, probe } = boardCircuit(SHEET, undefined, [], { meter: SOUND_CARD });
  const board = { analysis: new AcAnalysis(circuit), probe };

  /** Files that are chosen where a button asks for them. */
  async function choose(page: Page, label: string, files: Record<string, Uint8Array>) {
    const asked = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: label, exact: true }).click();
    const chooser = await asked;
    await chooser.setFiles(
      Object.entries(files).map(([name, bytes]) => ({
        name,
        mimeType: 'audio/wav',
        buffer: Buffer.from(bytes),
      })),
    );
  }

  /** That a take has the board’s response, at whatever level. */
  function isResponse({ frequenciesHz, levelDb: levels }: MeasuredCurve, above: number) {
    const exact = board.analysis.voltage(probe, Float64Array.from(frequenciesHz));
    const loud = levels.flatMap((db, k) => (db - Math.max(...levels) > above ? [k] : []));
    expect(loud.length).toBeGreaterThan(40);
    const off = loud.map((k) => levels[k] - levelDb(exact.re[k], exact.im[k]));
    for (const db of off) expect(Math.abs(db - meanOf(off))).toBeLessThan(0.1);
  }

  test('a sweep is saved, played by something else, and its recordings brought in', async () => {
    const page = await bench.page(ADDRESS);
    const dialog = await openSweep(page);
    await dialog.getByText('Another player').click();
    const save = dialog.getByRole('button', { name: 'Save the sweep' });
    const { name, content } = await downloaded(page, () => save.click());
    expect(name).toMatch(/sweep.*\.wav$/);
    const { samples, rate } = readWav(content, name);
    const wavs = (through: typeof board | null, seeds: number[]) =>
      playThrough(through, samples, USUAL_CONVERTERS, seeds).map((r) => wavOf(r.samples, rate));
    const [own, again] = wavs(board, [1, 2]);

    // One of them that is none: neither is taken.
    await choose(page, 'The recordings …', { 'a.wav': own, 'b.wav': own.slice(0, 30) });
    await dialog.getByText(/“b\.wav” cannot be played.*Nothing was taken/).waitFor();

    await choose(page, 'The loop-back …', { 'wire.wav': wavs(null, [3])[0] });
    await dialog.getByText(/^wire\.wav: taken out/).waitFor();
    await choose(page, 'The recordings …', { 'evening.wav': own, 'again.wav': again });
    await dialog.waitFor({ state: 'detached' });
    await page.getByRole('button', { name: /^evening.*points with phase/ }).waitFor();
    isResponse(await takeOf(page), -40);
  });

  test('an impulse response is brought in as its levels, and a sweep that is none is not', async () => {
    const page = await bench.page(ADDRESS);
    const quiet = { ...USUAL_CONVERTERS, humVolts: 0, noiseVolts: 2e-6 };
    const click = new Float64Array(24_000);
    click[100] = 1;
    const [{ samples, rate }] = playThrough(board, click, quiet, [1]);
    await page.getByRole('button', { name: 'Bring in a take' }).click();
    const dialog = page.getByRole('dialog', { name: 'Bring in a take' });
    const tone = wavOf(
      samples.map((_, n) => Math.sin(n / 9)),
      rate,
    );
    await choose(page, 'From a file …', { 'tone.wav': tone });
    await dialog.getByText(/no impulse response.*Nothing was taken/).waitFor();
    await choose(page, 'From a file …', { 'impulse.wav': wavOf(samples, rate) });
    await dialog.getByText(/Nothing was taken/).waitFor({ state: 'detached' });
    await dialog.getByRole('button', { name: 'Take it' }).click();
    await page.getByRole('button', { name: /^impulse/ }).waitFor();
    isResponse(await takeOf(page), -20);
  });
});

describe('through this computer’s audio', () => {
  let folder: string;
  let bench: Bench | undefined;
  beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'sweep-'))));
  afterAll(() => rmSync(folder, { recursive: true }));
  afterEach(async () => {
    const { faults = [] } = bench ?? {};
    await bench?.close();
    expect(faults).toEqual([]);
  });

  /** A browser whose input hears a file over and over. */
  async function hearing(samples: Float64Array, rate: number): Promise<Page> {
    const file = join(folder, 'heard.wav');
    writeFileSync(file, wavOf(samples, rate));
    bench = await Bench.open('light', 'no-preference', [
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
      `--use-file-for-fake-audio-capture=${file}`,
    ]);
    return bench.page(ADDRESS);
  }

  /** What this browser plays at. */
  async function rateHere(): Promise<number> {
    bench = await Bench.open();
    const page = await bench.page('/');
    const rate = await page.evaluate(() => new AudioContext().sampleRate);
    await bench.close();
    return rate;
  }

  async function through(page: Page) {
    const dialog = await openSweep(page);
    await dialog.getByText('This computer’s audio').click();
    await dialog.getByText(/hurt ears and tweeters/).waitFor();
    await dialog.getByLabel('One sweep, seconds').fill('1');
    return dialog;
  }

  test('the level is checked first, and a sweep that comes back is the board’s response', async () => {
    const rate = await rateHere();
    const plan = sweepPlan(SHEET.view, rate, 1);
    const { circuit, probe } = boardCircuit(SHEET, undefined, [], { meter: SOUND_CARD });
    const board = { analysis: new AcAnalysis(circuit), probe };
    const played = sweepSamples(plan, 0.3);
    const [back] = playThrough(board, played, { ...USUAL_CONVERTERS, rate }, [1]);
    // Heard over and over, what rings on falls into the next sweep.
    const round = new Float64Array(plan.seconds * rate);
    back.samples.forEach((v, n) => (round[n % round.length] += v));
    const page = await hearing(round, rate);
    const dialog = await through(page);
    expect(await dialog.getByRole('button', { name: 'Sweep it' }).isDisabled()).toBe(true);
    await dialog.getByRole('button', { name: 'Check the level' }).click();
    await dialog.getByText(/comes back/).waitFor();
    // A simulated device loses samples on a busy machine: that is seen, and one sweeps once more, as is said.
    const save = page.getByRole('button', { name: /as a table$/ });
    for (let turn = 0; turn < 8 && (await save.count()) === 0; turn++) {
      await dialog.getByRole('button', { name: 'Sweep it' }).click();
      await save.or(dialog.getByText(/not alike.*Nothing was taken/)).waitFor();
    }
    const { frequenciesHz, levelDb: levels, phaseDegrees } = await takeOf(page);
    expect(phaseDegrees).toBeUndefined();
    const exact = board.analysis.voltage(probe, Float64Array.from(frequenciesHz));
    const told = frequenciesHz.flatMap((hz, k) => (hz > 60 && hz < 6000 ? [k] : []));
    const off = told.map((k) => levels[k] - levelDb(exact.re[k], exact.im[k]));
    const gain = meanOf(off);
    for (const db of off) expect(Math.abs(db - gain)).toBeLessThan(0.1);
  });

  test('what is silent, and what is not the sweep, are refused with what to look for', async () => {
    const rate = 48_000;
    const hum = (size: number) =>
      Float64Array.from({ length: rate }, (_, n) => size * Math.sin((2 * Math.PI * 50 * n) / rate));
    const page = await hearing(hum(0.3), rate);
    const dialog = await through(page);
    await dialog.getByRole('button', { name: 'Check the level' }).click();
    await dialog.getByText(/comes back: good/).waitFor();
    await dialog.getByRole('button', { name: 'Sweep it' }).click();
    await dialog.getByText(/(is not this sweep|not alike).*Nothing was taken/).waitFor();
    await bench?.close();

    const silent = await hearing(hum(0), rate);
    const again = await through(silent);
    await again.getByRole('button', { name: 'Check the level' }).click();
    await again.getByText(/Nothing comes back: see/).waitFor();
    await again.getByRole('button', { name: 'Sweep it' }).click();
    await again.getByText(/Nothing came back.*Nothing was taken/).waitFor();
  });
});
