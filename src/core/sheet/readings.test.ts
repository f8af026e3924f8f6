import fc from 'fast-check';
import { acResponse } from '@/core/analysis/ac/ac';
import { askSchema, type Ask } from '@/core/design/ask';
import { designAsk } from '@/core/design/design';
import { ReedError } from '@/core/errors';
import { HALF_POWER_DB } from '@/core/response/decibels';
import { SHAPES } from '@/core/response/prototypes';
import type { Measure } from '@/core/response/readings';
import { TOPOLOGIES } from '@/core/topologies';
import { SheetEvaluator } from './evaluate';
import type { LayerId } from './layers';
import { defaultTarget } from './default-target';
import { DEFAULT_PARTS, makeSheet, makeStage } from './make';
import { pathCircuit, type PathVersion } from './path-circuit';
import type { Sheet } from './schema';
import { meets } from './verdict';

const at = '2026-11-24T08:00:00.000Z';
const sheetOf = (ask: object) =>
  makeSheet({ id: 'x', title: 'x', at, ask: askSchema.parse(ask), load: { ohms: null } });

function read(sheet: Sheet, measures: readonly Measure[]) {
  const readings = measures.map((measure, i) => ({ id: `r${i}`, measure }));
  const found = new SheetEvaluator().evaluate({ ...sheet, readings }).readings;
  return (layer: LayerId) =>
    found.map(({ results }) => {
      const result = results[layer]!;
      return 'measured' in result ? result.measured.value : result.error;
    });
}

/** Where each version has its highest point. */
function peakPlaces(sheet: Sheet) {
  const reading = { id: 'r', measure: { measure: 'peak-level' } as const };
  const [{ results }] = new SheetEvaluator().evaluate({ ...sheet, readings: [reading] }).readings;
  return (layer: LayerId) => {
    const result = results[layer]!;
    return 'measured' in result ? result.measured.atHz : NaN;
  };
}

/** Levels and phases of a version of a path, by one plain question. */
function plain(sheet: Sheet, version: PathVersion, hz: Float64Array) {
  const circuit = pathCircuit(sheet, 0, version);
  const { re, im } = acResponse(circuit, { frequenciesHz: hz, probes: ['out'] }).probes.out;
  return {
    levelDb: re.map((x, k) => 20 * Math.log10(Math.max(1e-20, Math.hypot(x, im[k])))),
    degrees: re.map((x, k) => (Math.atan2(im[k], x) * 180) / Math.PI),
  };
}
const dense = (fromHz: number, toHz: number, count: number) =>
  Float64Array.from({ length: count }, (_, k) => fromHz * (toHz / fromHz) ** (k / (count - 1)));

const MEASURES: Measure[] = [
  { measure: 'peak-level' },
  { measure: 'plateau' },
  { measure: 'range', end: 'highest', fromHz: 300, toHz: 3000 },
  { measure: 'range', end: 'lowest', fromHz: 300, toHz: 3000 },
  { measure: 'level', atHz: 700 },
  { measure: 'level', atHz: 700, reference: { from: 'peak' } },
  { measure: 'slope', fromHz: 500, toHz: 2000 },
  { measure: 'edge', downDb: HALF_POWER_DB, side: 'upper', reference: { from: 'peak' } },
  { measure: 'edge', downDb: HALF_POWER_DB, side: 'lower', reference: { from: 'peak' } },
];

describe.each(TOPOLOGIES.map((t) => [t.id, t] as const))('%s, ideal and built', (_, topology) => {
  const stage = makeStage('s1', topology, defaultTarget(topology, 1000), DEFAULT_PARTS, 'hand');
  const base = sheetOf({ kind: 'low-pass', order: 1, edgeHz: 1000 });
  const sheet: Sheet = { ...base, ways: [{ ...base.ways[0], stages: [stage] }] };
  const span = [sheet.view.fromHz / 10, sheet.view.toHz * 10] as const;
  const values = read(sheet, MEASURES);

  test.each(['ideal', 'built'] as const)(
    '%s: readings are what a plain search finds',
    (version) => {
      const got = values(version);
      const hz = dense(...span, 1500);
      const { levelDb } = plain(sheet, version, hz);
      const peakHz = peakPlaces(sheet)(version);
      const top = levelDb.reduce((a, b) => Math.max(a, b));
      const [peak, plateau, highest, lowest, level, relative, slope, upper, lower] = got;
      if (typeof peak === 'number') {
        expect(peak).toBeGreaterThan(top - 1e-6);
        // The search goes on beyond what the plain one looks at.
        if (peakHz > span[0] && peakHz < span[1]) expect(peak).toBeLessThan(top + 0.01);
      } else expect(peak).toMatch(/still rises/);
      expect(plateau).toBeLessThan((typeof peak === 'number' ? peak : top) + 1e-6);
      const middle = dense(300, 3000, 1500);
      const inside = plain(sheet, version, middle).levelDb;
      expect(Math.abs((highest as number) - inside.reduce((a, b) => Math.max(a, b)))).toBeLessThan(
        0.01,
      );
      // The plain search stands beside a zero, not on it.
      const least = inside.reduce((a, b) => Math.min(a, b));
      expect(lowest).toBeLessThan(least + 1e-6);
      if (least > -15) expect(lowest).toBeGreaterThan(least - 0.1);
      const [there, a, b] = plain(sheet, version, Float64Array.of(700, 500, 2000)).levelDb;
      expect(level).toBeCloseTo(there, 9);
      expect(relative).toBeCloseTo(there - (peak as number), 6);
      expect(slope).toBeCloseTo((b - a) / 2, 8);
      if (!(peakHz > span[0] && peakHz < span[1])) return;
      const from = hz.findIndex((f) => f >= peakHz);
      for (const [edge, step] of [
        [upper, 1],
        [lower, -1],
      ] as const) {
        const want = lastFall(hz, levelDb, from, (peak as number) - HALF_POWER_DB, step);
        if (typeof edge === 'string') expect(want).toBeUndefined();
        else if (edge > span[0] && edge < span[1]) expect(edge / want!).toBeCloseTo(1, 2);
      }
    },
  );
});

/** The last crossing downwards before the response is 12 dB under the target, on a dense grid. */
function lastFall(
  hz: Float64Array,
  level: Float64Array,
  from: number,
  target: number,
  step: 1 | -1,
): number | undefined {
  let last: number | undefined;
  for (let k = from; k + step >= 0 && k + step < hz.length; k += step) {
    if (level[k] >= target && level[k + step] < target) {
      const part = (level[k] - target) / (level[k] - level[k + step]);
      last = hz[k] * (hz[k + step] / hz[k]) ** part;
    }
    if (level[k + step] < target - 12) break;
  }
  return last;
}

describe('what an ask means', () => {
  const edge = (side: 'upper' | 'lower', from: 'plateau' | 'peak'): Measure => ({
    measure: 'edge',
    downDb: HALF_POWER_DB,
    side,
    reference: { from },
  });

  test('an ideal RC reads its corner, a band-pass its edges against plateau and peak', () => {
    const rc = sheetOf({ kind: 'low-pass', order: 1, edgeHz: 1000, topology: 'rc-low-pass' });
    expect(read(rc, [edge('upper', 'plateau')])('ideal')[0]).toBeCloseTo(1000, 3);
    const band = sheetOf({ kind: 'band-pass', order: 2, centreHz: 1000, q: 8 });
    const [plateau, upper, lower] = read(band, [
      { measure: 'plateau' },
      edge('upper', 'plateau'),
      edge('lower', 'plateau'),
    ])('built');
    expect(Math.abs(plateau as number)).toBeLessThan(3);
    expect(Math.abs((upper as number) / 1064 - 1)).toBeLessThan(0.2);
    expect((upper as number) - (lower as number)).toBeGreaterThan(80);
  });

  test.each([
    ['chebyshev', 5, 6],
    ['chebyshev', 6, 6],
    ['chebyshev', 7, 4],
  ])('%s of order %d rippling %d dB ends where it was asked', (shape, order, rippleDb) => {
    for (const kind of ['low-pass', 'high-pass'] as const) {
      const sheet = sheetOf({
        kind,
        shape,
        order,
        rippleDb,
        edgeHz: 1000,
        topology: `state-variable-${kind}`,
      });
      const [found] = sheet.readings;
      const result = new SheetEvaluator().evaluate(sheet).readings[0].results.ideal!;
      expect(found.measure.measure).toBe('edge');
      expect('measured' in result && result.measured.value).toBeCloseTo(1000, 4);
    }
  });

  test('an edge counted from a crest below the ripple is the outer one; the others are named', () => {
    const odd = sheetOf({
      kind: 'low-pass',
      shape: 'chebyshev',
      order: 5,
      rippleDb: 6,
      edgeHz: 1000,
      topology: 'state-variable-low-pass',
    });
    const readings = [{ id: 'r', measure: edge('upper', 'plateau') }];
    const [{ results }] = new SheetEvaluator().evaluate({ ...odd, readings }).readings;
    const { ideal } = results;
    if (!ideal || !('measured' in ideal)) throw new Error('The edge was not found.');
    expect(ideal.measured.value).toBeCloseTo(1000, 3);
    expect(ideal.measured.alsoHz!).toHaveLength(4);
    for (const hz of ideal.measured.alsoHz!) expect(hz).toBeLessThan(1000);
  });

  test('phase is counted from the flat band, the same for ideal and built', () => {
    const phases = (ask: object, atHz: number) => {
      const both = read(sheetOf(ask), [{ measure: 'phase', atHz }]);
      return [both('ideal')[0] as number, both('built')[0] as number];
    };
    for (const order of [2, 5, 8]) {
      const low = phases({ kind: 'low-pass', order, edgeHz: 4000 }, 4000);
      const high = phases({ kind: 'high-pass', order, edgeHz: 4000 }, 4000);
      expect(low[0]).toBeCloseTo(-45 * order, 6);
      expect(high[0]).toBeCloseTo(45 * order, 6);
      for (const [ideal, built] of [low, high]) expect(Math.abs(ideal - built)).toBeLessThan(60);
    }
    const notch = { kind: 'notch', centreHz: 50, q: 4 };
    const x = 10;
    expect(phases(notch, 500)[0]).toBeCloseTo((Math.atan(x / 4 / (x * x - 1)) * 180) / Math.PI, 6);
    expect(phases(notch, 5)[0]).toBeCloseTo((-Math.atan(0.1 / 4 / 0.99) * 180) / Math.PI, 6);
    for (const hz of [5, 40, 60, 500]) {
      const [ideal, built] = phases(notch, hz);
      expect(Math.abs(ideal - built)).toBeLessThan(45);
    }
    for (const order of [1, 2, 3, 4]) {
      const [ideal, built] = phases({ kind: 'band-pass', order, centreHz: 1000, q: 10 }, 1000);
      expect([0, -180]).toContain(Math.round(ideal));
      expect(Math.abs(ideal - built)).toBeLessThan(120 * order);
    }
  });

  test('a flat response has a highest level and no peak; a rising one has neither', () => {
    const flat = sheetOf({ kind: 'low-pass', order: 2, edgeHz: 1000 });
    const [level, hz] = read(flat, [{ measure: 'peak-level' }, { measure: 'peak-frequency' }])(
      'ideal',
    );
    expect(level).toBeCloseTo(0, 6);
    expect(hz).toMatch(/There is no peak/);
  });
});

describe('limits', () => {
  const limited = fc
    .record({
      kind: fc.constantFrom('low-pass', 'high-pass', 'band-pass', 'band-stop'),
      shape: fc.constantFrom(...SHAPES),
      // Without one, the least that does.
      order: fc.option(fc.integer({ min: 1, max: 8 }), { nil: undefined, freq: 3 }),
      passDb: fc.double({ min: 0.05, max: 3, noNaN: true }),
      stopDb: fc.double({ min: 10, max: 70, noNaN: true }),
      ratio: fc.double({ min: 1.3, max: 6, noNaN: true }),
      band: fc.double({ min: 1.5, max: 8, noNaN: true }),
      gainDb: fc.constantFrom(undefined, 0, 6, 12),
      // What the sentence once filled in must not stand in the way of the limits.
      filled: fc.boolean(),
    })
    .map(({ kind, shape, order, passDb, stopDb, ratio, band, gainDb, filled }): Partial<Ask> => {
      const [low, high] = [1000 / band, 1000 * band];
      const edges =
        kind === 'low-pass'
          ? { passHz: 1000, stopHz: 1000 * ratio }
          : kind === 'high-pass'
            ? { passHz: 1000, stopHz: 1000 / ratio }
            : kind === 'band-pass'
              ? {
                  passLowerHz: low,
                  passUpperHz: high,
                  stopLowerHz: low / ratio,
                  stopUpperHz: high * ratio,
                }
              : {
                  passLowerHz: low / ratio,
                  passUpperHz: high * ratio,
                  stopLowerHz: low,
                  stopUpperHz: high,
                };
      return {
        kind,
        shape,
        order,
        ...(gainDb === undefined ? {} : { gainDb }),
        ...(filled ? { rippleDb: 0.5, stopbandDb: 40 } : {}),
        limits: { ...edges, passDb, stopDb },
      };
    });

  test('what is said to meet them meets them in the solved circuit, whatever the gain', () => {
    const said = { meets: 0, misses: 0, refused: 0 };
    fc.assert(
      fc.property(limited, (fields) => {
        let sheet: Sheet;
        try {
          sheet = sheetOf(fields);
        } catch (error) {
          if (!(error instanceof ReedError)) throw error;
          said.refused++;
          return;
        }
        const evaluation = new SheetEvaluator().evaluate(sheet);
        const ranges = sheet.readings.filter((r) => r.measure.measure === 'range');
        expect(ranges.length).toBeGreaterThan(1);
        const met = ranges.every(({ id, wanted }) => {
          const ideal = evaluation.readings.find((r) => r.id === id)!.results.ideal!;
          return 'measured' in ideal && meets(wanted!, ideal.measured.value);
        });
        const words = designAsk(sheet.ask).notes.join(' ');
        const claim = /(least that )?meets the limits/.test(words) ? 'meets' : 'misses';
        expect(words).toContain(`${claim} the limits`);
        expect(met).toBe(claim === 'meets');
        said[claim]++;
      }),
      { numRuns: 120 },
    );
    expect(Math.min(said.meets, said.misses)).toBeGreaterThan(25);
  });
});
