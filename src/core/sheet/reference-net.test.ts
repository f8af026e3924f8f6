import { AcAnalysis } from '@/core/analysis/ac/ac';
import { topologyOf } from '@/core/topologies';
import { newSheet } from '@/testing/open-sheet';
import { makeStage } from './make';
import { pathCircuit } from './path-circuit';
import type { Sheet, Supply } from './schema';

const gain = makeStage(
  's1',
  topologyOf('non-inverting'),
  { f0Hz: 1000, gain: 11 },
  newSheet().parts,
  'hand',
  { ohms: 10_000 },
);
const fed = (supply?: Supply): Sheet => {
  const sheet = newSheet();
  const parts = {
    ...sheet.parts,
    ...(supply ? { supply } : {}),
    opAmp: { name: 'ideal', model: 'ideal' },
  } as const;
  const to = { is: 'load', name: 'Load', ohms: null, farads: null } as const;
  const exact = {
    ...gain.parts,
    RF: { ...gain.parts.RF, value: 10_000 },
    RG: { ...gain.parts.RG, value: 1000 },
  };
  return {
    ...sheet,
    parts,
    source: { name: 'S', ohms: 0, volts: 1 },
    ways: [{ ...sheet.ways[0], stages: [{ ...gain, parts: exact }], to }],
  };
};
const SINGLE: Supply = { is: 'single', volts: 9, ohms: 10_000, farads: 10e-6 };

const gainAt = (sheet: Sheet, version: 'ideal' | 'built', hz: number): number => {
  const { re, im } = new AcAnalysis(pathCircuit(sheet, 0, version)).voltage(
    'out',
    Float64Array.of(hz),
  );
  return Math.hypot(re[0], im[0]);
};

test('a half-supply reference takes the place of ground, with the impedance it has', () => {
  // Its two resistors and its capacitor lie in series with RG: 1 + RF / |RG + Z|, as a phasor.
  for (const hz of [1, 3, 10, 100, 10_000]) {
    const w = 2 * Math.PI * hz * 10e-6;
    const [g, b] = [1 / 5000, w];
    const size = g * g + b * b;
    const z = { re: 1000 + g / size, im: -b / size };
    const over = z.re * z.re + z.im * z.im;
    const want = Math.hypot(1 + (10_000 * z.re) / over, (10_000 * z.im) / over);
    expect(gainAt(fed(SINGLE), 'built', hz)).toBeCloseTo(want, 6);
  }
  // With next to no bypass the gain all but goes; with rails either side, and ideally, it is whole.
  expect(gainAt(fed({ ...SINGLE, farads: 1e-12 }), 'built', 1000)).toBeCloseTo(1 + 10 / 6, 3);
  expect(gainAt(fed({ is: 'split', volts: 12 }), 'built', 1)).toBeCloseTo(11, 6);
  expect(gainAt(fed(SINGLE), 'ideal', 1)).toBeCloseTo(11, 6);
});

test('passive stages keep to ground', () => {
  const rc = makeStage('s1', topologyOf('rc-low-pass'), { f0Hz: 1000 }, newSheet().parts, 'hand');
  const sheet = fed(SINGLE);
  const passive = { ...sheet, ways: [{ ...sheet.ways[0], stages: [rc] }] };
  const c1 = pathCircuit(passive, 0, 'built').parts.find((p) => p.id === 'C1');
  expect(c1).toMatchObject({ b: '0' });
});
