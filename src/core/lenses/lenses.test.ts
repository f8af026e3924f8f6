import { acResponse } from '@/core/analysis/ac/ac';
import { groupDelay } from '@/core/analysis/sensitivity/sensitivity';
import type { Ask } from '@/core/design/ask';
import { ReedError } from '@/core/errors';
import { DEFAULT_PARTS, makeSheet } from '@/core/sheet/make';
import { valuesOf, withValues } from '@/core/sheet/stage';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { delayLens } from './delay';
import { harmonicsLens, waveFromHarmonics } from './harmonics';
import { otaCascade } from '@/core/cells/ota-cascade';
import { voiceSheet } from '@/core/sheet/voice';
import { mapLens } from './map';
import { singingLens } from './singing';
import { timeLens } from './time';

const at = '2026-11-24T08:00:00.000Z';
const { model: usual } = DEFAULT_PARTS.opAmp;
if (usual === 'ideal') throw new Error('the usual op-amp is a real one');
/** Without what moves it at rest: a picture in time then stands about zero. */
const centred = { ...usual, offsetVolts: 0, biasAmps: 0 };

const sheetOf = (ask: Partial<Ask>) =>
  makeSheet({
    id: 'x',
    title: 'x',
    at,
    parts: { ...DEFAULT_PARTS, opAmp: { name: 'centred', model: centred } },
    ask: { kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 1000, ...ask },
  });
const ideal = <T>(layers: { id: string; value: T }[]): T =>
  layers.find((l) => l.id === 'ideal')!.value;

test('delay is that of the closed form', async () => {
  const { frequenciesHz, seconds } = ideal((await delayLens(sheetOf({}))).layers);
  frequenciesHz.forEach((hz, k) => {
    const x = hz / 1000;
    const closed = (Math.SQRT2 * (1 + x * x)) / (1 + x ** 4) / (2 * Math.PI * 1000);
    expect(Math.abs(seconds[k] / closed - 1)).toBeLessThan(1e-6);
  });
});

test('a pulse charges and discharges an RC as the exponential says', async () => {
  const pictures = await timeLens(sheetOf({ order: 1, topology: 'rc-low-pass' }));
  const pulse = pictures.find((p) => p.id === 'pulse')!;
  const { seconds, volts } = ideal(pulse.layers.layers);
  const tau = 1 / (2 * Math.PI * 1000);
  const [rise, fall] = [0.25e-3, 3.25e-3];
  seconds.forEach((t, k) => {
    const want =
      t < rise ? 0 : t < fall ? 1 - Math.exp((rise - t) / tau) : Math.exp((fall - t) / tau);
    expect(Math.abs(volts[k] - want)).toBeLessThan(1e-6);
  });
});

/** A square that has gone on for ever, from its harmonics; the jump itself goes by H at the far end. */
function steadySquare(sheet: Sheet, version: 'ideal' | 'built', atHz: number, t: number): number {
  const orders = Array.from({ length: 3000 }, (_, k) => 2 * k + 1);
  const circuit = pathCircuit(sheet, 0, version);
  const { re, im } = acResponse(circuit, {
    frequenciesHz: orders.map((n) => n * atHz),
    probes: ['out'],
  }).probes.out;
  const far = re[re.length - 1];
  return orders.reduce(
    (v, n, k) => {
      const w = 2 * Math.PI * n * atHz * t;
      return v + (4 / (Math.PI * n)) * ((re[k] - far) * Math.sin(w) + im[k] * Math.cos(w));
    },
    far * ((t * atHz) % 1 < 0.5 ? 1 : -1),
  );
}

test.each([
  ['a narrow band-pass', { kind: 'band-pass', order: 1, centreHz: 1000, q: 30, edgeHz: undefined }],
  ['a steep low-pass', { order: 8, shape: 'chebyshev', rippleDb: 1 }],
  ['a high-pass', { kind: 'high-pass', order: 3 }],
  ['a flat delay', { kind: 'all-pass', order: 3, shape: 'bessel' }],
] as [string, Partial<Ask>][])('squares through %s are settled, spikes and all', async (_, ask) => {
  const sheet = sheetOf(ask);
  for (const picture of await timeLens(sheet)) {
    if (!picture.id.startsWith('square')) continue;
    for (const version of ['ideal', 'built'] as const) {
      const { seconds, volts } = picture.layers.layers.find((l) => l.id === version)!.value;
      const top = volts.reduce((a, v) => Math.max(a, Math.abs(v)), 0);
      for (let k = 5; k < seconds.length; k += 97) {
        const phase = (seconds[k] * picture.atHz) % 0.5;
        // So many harmonics do not tell what happens right at the jump.
        if (phase < 0.01 || phase > 0.49) continue;
        const want = steadySquare(sheet, version, picture.atHz, seconds[k]);
        expect(Math.abs(volts[k] - want)).toBeLessThan(0.015 * top);
      }
    }
  }
});

test('a high-pass jumps by the whole swing, and decays as the exponential says', async () => {
  const pictures = await timeLens(
    sheetOf({ kind: 'high-pass', order: 1, topology: 'rc-high-pass' }),
  );
  const { volts } = ideal(pictures.find((p) => p.id === 'square-low')!.layers.layers);
  // Settled between the edges of a slow square, it jumps by two volts.
  const left = Math.exp(-2 * Math.PI * 4);
  expect(Math.max(...volts)).toBeCloseTo(2 / (1 + left), 4);
});

test('delay peaks are drawn as high as they are', async () => {
  const narrow = sheetOf({ kind: 'band-pass', order: 1, centreHz: 1000, q: 30, edgeHz: undefined });
  const { seconds } = ideal((await delayLens(narrow)).layers);
  expect(Math.max(...seconds) / ((2 * 30) / (2 * Math.PI * 1000))).toBeCloseTo(1, 3);
  const elliptic = sheetOf({ shape: 'elliptic', order: 7 });
  for (const { id, value } of (await delayLens(elliptic)).layers) {
    const circuit = pathCircuit(elliptic, 0, id as 'ideal' | 'built');
    const hz = Array.from({ length: 4000 }, (_, k) => 500 * 4 ** (k / 3999));
    const plain = groupDelay(circuit, 'out', hz);
    const drawn = value.seconds.filter((_, k) => value.frequenciesHz[k] <= 2000);
    expect(Math.max(...drawn)).toBeGreaterThan(0.99 * Math.max(...plain));
  }
});

test('a slow square comes through a low-pass, a fast one nearly vanishes; the burst rings on', async () => {
  const pictures = await timeLens(sheetOf({}));
  const swing = (id: string) => {
    const { volts } = ideal(pictures.find((p) => p.id === id)!.layers.layers);
    return Math.max(...volts) - Math.min(...volts);
  };
  expect(swing('square-low')).toBeGreaterThan(2);
  expect(swing('square-high')).toBeLessThan(0.2);
  // At the edge half the power is left of a sine that swings by 2 * 1.414 V.
  expect(swing('burst')).toBeGreaterThan(1.95);
  expect(swing('burst')).toBeLessThan(2.4);
});

describe('harmonics', () => {
  const gain = (x: number) => 1 / Math.sqrt(1 + x ** 4);
  const read = async (sheet: Sheet, id: string, shift: number) =>
    (await harmonicsLens(sheet, { wave: 'saw', fundamentalHz: 500, shift })).layers.layers.find(
      (l) => l.id === id,
    )!.value.amplitude;

  test('fall by the level at their frequencies, and move with the cut-off', async () => {
    const still = await read(sheetOf({}), 'ideal', 1);
    const up = await read(sheetOf({}), 'ideal', 2);
    expect(still[3] / ((2 / (4 * Math.PI)) * gain(2))).toBeCloseTo(1, 9);
    expect(up[3] / ((2 / (4 * Math.PI)) * gain(1))).toBeCloseTo(1, 9);
  });

  test('are solved at each place: a slow op-amp does not move along with the cut-off', async () => {
    const slow = {
      name: 'slow',
      model: { gainBandwidthHz: 100_000, dcGainDb: 100 },
    } as const;
    const base = sheetOf({ topology: 'unity-low-pass', edgeHz: 4000 });
    const sheet: Sheet = { ...base, parts: { ...base.parts, opAmp: slow } };
    const found = await read(sheet, 'built', 4);
    // The same circuit written down with every capacitor a quarter, solved on its own.
    const way = sheet.ways[0];
    const quarter = way.stages.map((s) =>
      withValues(
        s,
        Object.fromEntries(
          Object.entries(valuesOf(s)).map(([k, v]) => [k, k.startsWith('C') ? v / 4 : v]),
        ),
      ),
    );
    const circuit = pathCircuit({ ...sheet, ways: [{ ...way, stages: quarter }] }, 0, 'built');
    const { re, im } = acResponse(circuit, { frequenciesHz: [10_000], probes: ['out'] }).probes.out;
    expect(found[19]).toBeCloseTo((2 / (20 * Math.PI)) * Math.hypot(re[0], im[0]), 12);
    // Sliding the unmoved curve along would be off by a quarter of a decibel here.
    const slid = acResponse(pathCircuit(sheet, 0, 'built'), {
      frequenciesHz: [2500],
      probes: ['out'],
    }).probes.out;
    const off = 20 * Math.log10(Math.hypot(slid.re[0], slid.im[0]) / Math.hypot(re[0], im[0]));
    expect(Math.abs(off)).toBeGreaterThan(0.2);
  });

  test('add up to the wave they are taken from, as high as the source gives', async () => {
    const base = sheetOf({});
    const loud = {
      ...base,
      source: { ...base.source, volts: 3 },
    };
    const { input } = await harmonicsLens(loud, { wave: 'square', fundamentalHz: 10, shift: 1 });
    const wave = waveFromHarmonics(input, undefined, 301);
    expect(Math.abs(wave[50] / 3 - 1)).toBeLessThan(0.03);
    expect(Math.abs(wave[150] / -3 - 1)).toBeLessThan(0.03);
  });
});

test('long work pauses often, and a pause can stop it', async () => {
  let pauses = 0;
  await timeLens(sheetOf({}), () => Promise.resolve(void pauses++));
  expect(pauses).toBeGreaterThanOrEqual(10);
  const stop = () => Promise.reject(new ReedError('stopped', 'Stopped on request.'));
  await expect(timeLens(sheetOf({}), stop)).rejects.toThrow(/Stopped/);
});

test('the map holds the poles that the stages were designed for', async () => {
  const { layers, held } = await mapLens(sheetOf({ order: 4, shape: 'chebyshev' }));
  const found = ideal(layers.layers);
  expect(found.verdict).toBe('stable');
  for (const { f0Hz, q } of held)
    expect(
      found.poleFigures.some(
        (p) => Math.abs(p.f0Hz / f0Hz - 1) < 1e-6 && Math.abs(p.q! / q - 1) < 1e-6,
      ),
    ).toBe(true);
});

test('a voice sings where the poles of its biased circuit reach the axis, wherever its knob stands', async () => {
  const voice = voiceSheet({
    id: 'v',
    title: 'V',
    at,
    cell: otaCascade,
    ...otaCascade.usual,
    source: { name: 'O', ohms: 0 },
    load: { name: 'L', ohms: null },
  });
  // With ideal op-amps the loop is the textbook’s.
  const sheet: Sheet = {
    ...voice,
    parts: { ...voice.parts, opAmp: { name: 'ideal', model: 'ideal' } },
  };
  const resonance = sheet.controls.find((c) => c.for === 'resonance')!;
  const { at: x, hz } = await singingLens(sheet, { control: resonance.id });
  // With k = x 51 2k / (22k + x (1 - x) 10k) = 4: the closed form of the drawn loop.
  expect((x! * 51 * 2000) / (22_000 + x! * (1 - x!) * 10_000)).toBeCloseTo(4, 3);
  expect(hz).toBeGreaterThan(1000);
  const up = {
    ...sheet,
    controls: sheet.controls.map((c) => (c === resonance ? { ...c, at: 1 } : c)),
  };
  expect((await singingLens(up, { control: resonance.id })).at).toBeCloseTo(x!, 9);
  const cutOff = sheet.controls.find((c) => c.for === 'cut-off')!;
  expect((await singingLens(sheet, { control: cutOff.id })).why).toMatch(/No pair/);
  await expect(singingLens(sheet, { control: 'gone' })).rejects.toThrow(/control is gone/);
});
