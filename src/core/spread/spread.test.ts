import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import { newSheet } from '@/testing/open-sheet';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { makeCircuit } from '@/core/circuit/schema';
import { seededRandom } from '@/core/random';
import { HALF_POWER_DB } from '@/core/response/decibels';
import { readMeasure, ResponseReader, type Measure } from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { pathCircuit } from '@/core/sheet/path-circuit';
import { boardRandom, drawBoard } from './deviations';
import { deviatingBy, type Rules } from './rules';
import { PortionSum } from './portions';
import { Spread, type SpreadRequest } from './spread';
import { Tally } from './tally';

const RC: Circuit = makeCircuit([
  UNIT_SOURCE,
  { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 10e3 },
  { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 10e-9 },
]);
const CORNER: Measure = {
  measure: 'edge',
  downDb: HALF_POWER_DB,
  side: 'upper',
  reference: { from: 'plateau' },
};
const SPAN = { fromHz: 1, toHz: 1e6 };

function spread(circuit: Circuit, rules: Rules, more: Partial<SpreadRequest> = {}): Spread {
  return new Spread({
    circuit,
    probe: 'out',
    deviating: (analysis) => deviatingBy(analysis, rules),
    seed: 1,
    boards: 6000,
    readings: [{ measure: CORNER }],
    span: SPAN,
    ...more,
  });
}

/** Parts of rising values. */
const partOf = (values: readonly number[], part: number) =>
  [...values].sort((a, b) => a - b)[Math.round(part * (values.length - 1))];

describe.each(['uniform', 'normal'] as const)('the corner of an RC, %s', (is) => {
  const rules: Rules = {
    resistor: { tolerance: 0.01, shape: { is } },
    capacitor: { tolerance: 0.05, shape: { is } },
  };
  const run = spread(RC, rules, { levelsAt: Float64Array.of(1000) });
  run.draw(6000);
  const { readings, levels } = run.result();
  const corner = readings[0]!;

  // The closed form, over boards drawn by other means.
  const random = seededRandom(99);
  const deviate = (tolerance: number): number => {
    if (is === 'uniform') return tolerance * (2 * random() - 1);
    for (;;) {
      // The sum of twelve: no use of what is tested.
      const sum = Array.from({ length: 12 }, random).reduce((a, b) => a + b, -6);
      if (Math.abs(sum) <= 3) return (tolerance * sum) / 3;
    }
  };
  const wanted = Array.from({ length: 200_000 }, () => {
    const [r, c] = [10e3 * (1 + deviate(0.01)), 10e-9 * (1 + deviate(0.05))];
    return 1 / (2 * Math.PI * r * c);
  });
  const sd = Math.sqrt(wanted.reduce((s, x) => s + (x - 1591.55) ** 2, 0) / wanted.length);

  test('of each board is where the closed form has it', () => {
    const deviating = deviatingBy(new AcAnalysis(RC), rules);
    const own = new Float64Array(deviating.length);
    for (let board = 0; board < 200; board++) {
      drawBoard(deviating, boardRandom(1, board), 0, own);
      const [r, c] = ['R1', 'C1'].map((id) => 1 + own[deviating.findIndex((d) => d.part === id)]);
      const hz = 1 / (2 * Math.PI * 10e3 * r * 10e-9 * c);
      expect(Math.abs(run.readingsOf(board)[0] / hz - 1)).toBeLessThan(1e-6);
    }
  });

  test('agrees with the closed form within sampling error', () => {
    const error = (4 * sd) / Math.sqrt(6000);
    expect(Math.abs(corner.mean - wanted.reduce((a, b) => a + b) / wanted.length)).toBeLessThan(
      error,
    );
    expect(corner.sd / sd).toBeCloseTo(1, 1);
    for (const [told, part] of [
      [corner.p1, 0.01],
      [corner.p5, 0.05],
      [corner.p50, 0.5],
      [corner.p95, 0.95],
      [corner.p99, 0.99],
    ])
      expect(Math.abs(told - partOf(wanted, part))).toBeLessThan(3 * error);
    // The level at 1 kHz falls with the corner.
    const levelAt = (corner_: number) => -10 * Math.log10(1 + (1000 / corner_) ** 2);
    expect(levels.p5[0]).toBeCloseTo(levelAt(corner.p5), 2);
    expect(levels.p95[0]).toBeCloseTo(levelAt(corner.p95), 2);
  });

  test('is the capacitor’s to 25 parts in 26', () => {
    expect(corner.shares.C1).toBeCloseTo(25 / 26, 2);
    expect(corner.shares.R1).toBeCloseTo(1 / 26, 2);
  });

  test('has its worst corners where both parts are at their ends', () => {
    expect(corner.corners!.least).toBeCloseTo(1591.5494 / (1.01 * 1.05), 2);
    expect(corner.corners!.most).toBeCloseTo(1591.5494 / (0.99 * 0.95), 2);
  });
});

test('every board reads what a reader of its own would read', () => {
  const sheet = newSheet();
  const circuit = pathCircuit(sheet, 0, 'built');
  const rules: Rules = { resistor: { tolerance: 0.05 }, capacitor: { tolerance: 0.1 } };
  const measures = sheet.readings.map((r) => r.measure);
  const span = { fromHz: sheet.view.fromHz / 100, toHz: sheet.view.toHz * 100 };
  const boards = 12;
  const analysis = new AcAnalysis(circuit);
  const deviating = deviatingBy(analysis, rules);
  const deviations = new Float64Array(deviating.length);
  const nominal = analysis.values.slice();
  for (let board = 0; board < boards; board++) {
    const run = spread(circuit, rules, {
      boards: board + 1,
      readings: measures.map((measure) => ({ measure })),
      span,
    });
    run.draw(board + 1);
    drawBoard(deviating, boardRandom(1, board), 0, deviations);
    analysis.values.set(nominal);
    deviating.forEach(({ parameter }, i) => (analysis.values[parameter] *= 1 + deviations[i]));
    analysis.update();
    const reader = new ResponseReader(responseOf(analysis, 'out'), { span });
    run.readingsOf(board).forEach((told, i) => {
      const { value } = readMeasure(reader, measures[i]);
      expect(Math.abs(told - value)).toBeLessThan(2e-3 * Math.max(1, Math.abs(value)));
    });
  }
});

test('boards are the same for the same seed, however they are drawn', () => {
  const rules: Rules = { resistor: { tolerance: 0.01 }, capacitor: { tolerance: 0.05 } };
  const [once, twice, other] = [1, 1, 2].map((seed) => spread(RC, rules, { seed, boards: 300 }));
  once.draw(300);
  other.draw(300);
  for (let i = 0; i < 300; i += 70) twice.draw(70);
  expect(twice.result()).toEqual(once.result());
  expect(other.result().readings).not.toEqual(once.result().readings);
});

test('parts of one reel are off together', () => {
  const divider = makeCircuit([
    UNIT_SOURCE,
    { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 10e3 },
    { id: 'R2', kind: 'resistor', a: 'out', b: '0', ohms: 10e3 },
  ]);
  const level: Measure = { measure: 'level', atHz: 1000 };
  const sdOf = (reel?: string) => {
    const rule = { tolerance: 0.05, ...(reel ? { reel } : {}) };
    const run = spread(
      divider,
      { resistor: rule },
      { readings: [{ measure: level }], boards: 2000 },
    );
    run.draw(2000);
    return run.result().readings[0]!.sd;
  };
  expect(sdOf('one') / sdOf()).toBeCloseTo(0.2, 1);
});

test('what is wanted is counted board by board', () => {
  const rules: Rules = { capacitor: { tolerance: 0.05 } };
  // The capacitor is even over five per cent: the corner lies under its nominal in half of them.
  const run = spread(RC, rules, {
    boards: 4000,
    readings: [{ measure: CORNER, met: (hz) => hz < 1591.5494 }],
  });
  run.draw(4000);
  const { yield: all, readings } = run.result();
  expect(all).toBe(readings[0]!.met);
  expect(all).toBeCloseTo(0.5, 1);
});

test('a rule about nothing says so', () => {
  expect(() => spread(RC, { R7: { tolerance: 0.01 } })).toThrow(/no part and no kind “R7”/);
});

test('a tally of many keeps percentiles to a part in a thousand of their span', () => {
  const random = seededRandom(5);
  const values = Array.from({ length: 50_000 }, () => (random() + random() + random()) * 2 - 3);
  const tally = new Tally(values.length);
  values.forEach((v) => tally.add(v));
  [0.01, 0.05, 0.5, 0.95, 0.99].forEach((part) =>
    expect(Math.abs(tally.percentiles([part])[0] - partOf(values, part))).toBeLessThan(0.012),
  );
  expect(tally.mean).toBeCloseTo(values.reduce((a, b) => a + b) / values.length, 9);
});

test('boards counted in portions come to what they do in one go', () => {
  const rules: Rules = { resistor: { tolerance: 0.01 }, capacitor: { tolerance: 0.05 } };
  const met = (hz: number) => hz > 1590;
  const more = {
    levelsAt: Float64Array.of(300, 1000, 3000),
    phases: true,
    readings: [{ measure: CORNER, met }],
  };
  const all = spread(RC, rules, { ...more, boards: 12_000 });
  all.draw(12_000);
  const whole = all.result();
  const first = spread(RC, rules, { ...more, boards: 4096 });
  first.draw(4096);
  const sum = new PortionSum(whole, first.portion());
  for (const [from, boards] of [
    [4096, 4000],
    [8096, 3904],
  ]) {
    const portion = spread(RC, rules, { ...more, first: from, boards, frames: sum.frames });
    portion.draw(boards);
    sum.add(portion.portion());
  }
  const found = sum.result();
  expect(found.boards).toBe(12_000);
  expect(found.yield).toBe(whole.yield);
  const [a, b] = [found.readings[0]!, whole.readings[0]!];
  for (const field of ['mean', 'sd', 'p1', 'p5', 'p50', 'p95', 'p99', 'met'] as const)
    expect(a[field]! / b[field]!).toBeCloseTo(1, 9);
  expect(a.shares).toEqual(b.shares);
  for (const part of ['p5', 'p50', 'p95'] as const) {
    found.levels[part].forEach((db, k) => expect(db).toBeCloseTo(whole.levels[part][k], 9));
    found.phases![part].forEach((deg, k) => expect(deg).toBeCloseTo(whole.phases![part][k], 9));
  }
});
