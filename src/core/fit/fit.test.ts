import { AcAnalysis } from '@/core/analysis/ac/ac';
import { askSchema, type Ask } from '@/core/design/ask';
import { designCircuit } from '@/core/design/circuit';
import { designAsk } from '@/core/design/design';
import { mainHz } from '@/core/design/ask';
import { spaced } from '@/core/response/landmarks';
import { levelsDb } from '@/core/response/response';
import { preferredNumbers } from '@/core/quantity/series';
import type { Circuit } from '@/core/circuit/schema';
import { blocksOf } from './blocks';
import { circuitOf, fitCircuit, fitted, type CircuitFit } from './fit-circuit';
import { chosenParts, type Supply } from './supply';

const E24_E6: Supply = { resistors: 'E24', capacitors: 'E6', inductors: 'E12' };

const ASKS: Partial<Ask>[] = [
  { kind: 'low-pass', order: 2, edgeHz: 1234, gainDb: 0, topology: 'unity-low-pass' },
  { kind: 'low-pass', order: 4, edgeHz: 3400, topology: 'multiple-feedback-low-pass' },
  { kind: 'low-pass', order: 6, edgeHz: 700, shape: 'chebyshev', rippleDb: 0.5 },
  { kind: 'high-pass', order: 3, edgeHz: 90, shape: 'bessel' },
  { kind: 'band-pass', order: 2, centreHz: 800, q: 3 },
  { kind: 'low-pass', order: 3, edgeHz: 5000, topology: 'lc-ladder-low-pass-3' },
  { kind: 'peak', centreHz: 2500, q: 1.5, gainDb: 6 },
];

function circuitFor(ask: Partial<Ask>): { circuit: Circuit; hz: number } {
  const checked = askSchema.parse(ask);
  return { circuit: designCircuit(designAsk(checked), 'ideal').circuit, hz: mainHz(checked) };
}

/** The greatest difference from the exact level within 40 dB of its top, on a grid of the test’s own. */
function worstOn(circuit: Circuit, exact: Circuit, hz: number): number {
  const grid = spaced(hz / 30, hz * 30, 900);
  const [a, b] = [circuit, exact].map((c) => levelsDb(new AcAnalysis(c).voltage('out', grid)));
  const top = Math.max(...b);
  return a.reduce((w, db, k) => (b[k] > top - 40 ? Math.max(w, Math.abs(db - b[k])) : w), 0);
}

function fitOf(circuit: Circuit, hz: number, supply: Supply = E24_E6, boards = 1): CircuitFit {
  const span = { fromHz: hz / 30, toHz: hz * 30 };
  return fitted(fitCircuit({ circuit, ideal: circuit, probe: 'out', supply, boards, span }));
}

const isOf = (value: number, series: 'E24' | 'E6') => {
  const mantissa = value / 10 ** Math.floor(Math.log10(value) + 1e-9);
  return preferredNumbers(series).some((n) => Math.abs(n / mantissa - 1) < 1e-9);
};

describe('values of a series', () => {
  const results = ASKS.map((ask) => {
    const { circuit, hz } = circuitFor(ask);
    return { circuit, hz, ...fitOf(circuit, hz) };
  });

  test('are never worse than rounding each by itself, and mostly by far better', () => {
    const ratios = results.map(({ nearest, fitted: all }) => all.worstDb / nearest.worstDb);
    ratios.forEach((ratio) => expect(ratio).toBeLessThanOrEqual(1));
    expect(ratios.sort((a, b) => a - b)[3]).toBeLessThan(0.25);
  });

  test('have the error that is told, on any grid', () => {
    for (const { circuit, hz, nearest, fitted: all } of results)
      for (const choice of [nearest, all]) {
        const own = worstOn(circuitOf(circuit, choice), circuit, hz);
        expect(own).toBeLessThan(choice.worstDb * 1.05 + 0.003);
        expect(own).toBeGreaterThan(choice.worstDb * 0.9 - 0.003);
      }
  });

  test('are all of their series', () => {
    for (const { circuit, fitted: all } of results)
      for (const { id, value } of all.chosen) {
        const kind = circuit.parts.find((p) => p.id === id)!.kind;
        if (kind === 'resistor') expect(isOf(value, 'E24')).toBe(true);
        if (kind === 'capacitor') expect(isOf(value, 'E6')).toBe(true);
      }
  });

  test('are the same every time', () => {
    const [{ circuit, hz, fitted: all }] = results;
    expect(fitOf(circuit, hz).fitted).toEqual(all);
  });
});

test('real op-amps, source and load are made up for', () => {
  const design = designAsk(askSchema.parse({ ...ASKS[1], edgeHz: 12_000, gainDb: 6 }));
  const ideal = designCircuit(design, 'ideal').circuit;
  const opAmp = { gainBandwidthHz: 1e6, dcGainDb: 100, outputOhms: 100 };
  const { circuit } = designCircuit(design, opAmp);
  const exact = worstOn(circuit, ideal, 12_000);
  const span = { fromHz: 400, toHz: 300_000 };
  const supply: Supply = { ...E24_E6, pairs: 'both' };
  const found = fitted(fitCircuit({ circuit, ideal, probe: 'out', supply, span }));
  // Even exact values would leave more than the fitted ones do.
  expect(exact).toBeGreaterThan(0.4);
  expect(found.fitted.worstDb).toBeLessThan(exact / 3);
});

test('pairs come closer, and the circuit with both parts is the one that was judged', () => {
  const { circuit, hz } = circuitFor(ASKS[2]);
  const single = fitOf(circuit, hz);
  const paired = fitOf(circuit, hz, { ...E24_E6, pairs: 'both' });
  expect(paired.fitted.worstDb).toBeLessThan(single.fitted.worstDb / 2);
  for (const { value, made } of paired.fitted.chosen) {
    const [a, b = 0] = made.of;
    expect([a, b].some((x) => x > 0)).toBe(true);
    if (made.how === 'single') expect(value).toBe(a);
    else expect([a + b, (a * b) / (a + b)].some((x) => Math.abs(x / value - 1) < 1e-12)).toBe(true);
  }
  const built = circuitOf(circuit, paired.fitted);
  expect(built.parts.length).toBeGreaterThan(circuit.parts.length);
  expect(worstOn(built, circuit, hz)).toBeLessThan(paired.fitted.worstDb * 1.05 + 0.003);
});

test('parts with a trimmer make up for the others; the board with what they are set to is the judged one', () => {
  const { circuit, hz } = circuitFor(ASKS[2]);
  const single = fitOf(circuit, hz);
  const resistors = chosenParts(circuit).filter((p) => p.kind === 'resistor');
  const trimmed = resistors.map((p) => p.id).slice(0, 2);
  const parts = chosenParts(circuit).map((p) =>
    trimmed.includes(p.id) ? { ...p, making: 'trimmer' as const } : p,
  );
  const span = { fromHz: hz / 30, toHz: hz * 30 };
  const found = fitted(
    fitCircuit({ circuit, ideal: circuit, probe: 'out', supply: E24_E6, span, parts }),
  );
  expect(found.fitted.worstDb).toBeLessThan(single.fitted.worstDb);
  expect(found.fitted.worstDb).toBeLessThanOrEqual(found.nearest.worstDb);
  for (const choice of [found.nearest, found.fitted])
    for (const { id, value, made } of choice.chosen) {
      expect(made.how).toBe(trimmed.includes(id) ? 'trimmer' : 'single');
      if (made.how === 'trimmer') {
        expect(value).toBeGreaterThan(made.of[0]);
        expect(value).toBeLessThan(made.of[0] + made.of[1]);
      }
    }
  const built = circuitOf(circuit, found.fitted);
  expect(built.parts).toHaveLength(circuit.parts.length + trimmed.length);
  expect(worstOn(built, circuit, hz)).toBeLessThan(found.fitted.worstDb * 1.05 + 0.003);
});

describe('a stock', () => {
  const item = (value: number, quantity: number, i: number) => ({ id: `p${i}`, value, quantity });
  const stock = {
    resistor: [4700, 5600, 6800, 8200, 10e3, 12e3, 15e3].map((v, i) => item(v, 4, i)),
    capacitor: [1e-9, 4.7e-9, 10e-9, 22e-9, 47e-9].map((v, i) => item(v, 2, 20 + i)),
  };

  test('is taken from and never emptied further than it goes, for all boards', () => {
    const { circuit, hz } = circuitFor(ASKS[1]);
    for (const boards of [1, 2]) {
      const found = fitOf(circuit, hz, { ...E24_E6, stock }, boards);
      const taken = new Map<string, number>();
      for (const { made } of found.fitted.chosen)
        for (const id of made.stock ?? []) taken.set(id, (taken.get(id) ?? 0) + boards);
      expect(taken.size).toBeGreaterThan(0);
      for (const [id, count] of taken)
        expect(count).toBeLessThanOrEqual(
          [...stock.resistor, ...stock.capacitor].find((i) => i.id === id)!.quantity,
        );
    }
  });

  test('gives its own trimmers, and says where none of them reaches', () => {
    const { circuit, hz } = circuitFor(ASKS[0]);
    const parts = chosenParts(circuit).map((p) => ({ ...p, making: 'trimmer' as const }));
    const span = { fromHz: hz / 30, toHz: hz * 30 };
    const fitWith = (trimmers: Supply['trimmers']) =>
      fitted(
        fitCircuit({
          ...{ circuit, ideal: circuit, probe: 'out', span, parts },
          supply: { ...E24_E6, trimmers },
        }),
      );
    const tracks = [1e3, 2e3, 5e3, 10e3, 20e3, 50e3].map((v, i) => ({ ...item(v, 3, 40 + i) }));
    const { chosen } = fitWith(tracks).fitted;
    for (const { made } of chosen.filter((c) => c.made.how === 'trimmer'))
      expect(tracks.map((t) => t.value)).toContain(made.of[1]);
    expect(chosen.some((c) => c.made.how === 'trimmer')).toBe(true);
    expect(() => fitWith([])).toThrow(/No resistor with a trimmer could be R1/);
  });

  test('without a part of a kind that is needed says which', () => {
    const { circuit, hz } = circuitFor(ASKS[0]);
    expect(() => fitOf(circuit, hz, { ...E24_E6, stock: { capacitor: [] } })).toThrow(
      /no capacitor that could be C1/,
    );
  });
});

test('blocks end at what holds a voltage', () => {
  const { circuit } = circuitFor(ASKS[1]);
  const ids = circuit.parts.filter((p) => /^[RC]/.test(p.id)).map((p) => p.id);
  const blocks = blocksOf(circuit, ids).map((block) => block.map((i) => ids[i]).sort());
  expect(blocks).toHaveLength(2);
  expect(blocks.flat().sort()).toEqual([...ids].sort());
});
