import fc from 'fast-check';
import { TAKE } from '@/core/library/testing';
import { SheetEvaluator, type Layer } from '@/core/sheet/evaluate';
import { valueAt } from '@/ui/chart/axis';
import { LOW_PASS, newSheet } from '@/testing/open-sheet';
import {
  axisFor,
  curveOf,
  lineOf,
  sheetLayers,
  spreadLayer,
  takeLayers,
  wantedLayers,
} from './frequency-layers';

const trace = (hz: number[], levelDb: number[], phaseDegrees: number[]) => ({
  frequenciesHz: Float64Array.from(hz),
  levelDb: Float64Array.from(levelDb),
  phaseDegrees: Float64Array.from(phaseDegrees),
});
const layer = (id: Layer['id'], hz: number[], db: number[], degrees: number[]): Layer => ({
  id,
  key: id,
  trace: trace(hz, db, degrees),
});

describe('what boards stay within', () => {
  const hz = Float64Array.of(10, 20, 40, 80);
  const band = (low: number[], high: number[]) => ({
    hz,
    p5: Float64Array.from(low),
    p50: Float64Array.from(low),
    p95: Float64Array.from(high),
  });
  const spread = {
    levels: band([-1, -1, -1, -1], [1, 1, 1, 1]),
    phases: band([-20, -170, -200, -400], [-10, -160, -170, -380]),
  };

  test('is one band of level or of phase, and none of what is read off other boards', () => {
    expect(spreadLayer('level', spread, true)).toMatchObject([{ low: spread.levels.p5, x: hz }]);
    expect(spreadLayer('phase', spread, false)).toMatchObject([{ high: spread.phases.p95 }]);
    expect(spreadLayer('delay', spread, false)).toEqual([]);
  });

  test('is parted where a wrapped phase leaves one end and enters the other', () => {
    const parts = spreadLayer('phase', spread, true);
    const ends = parts.map(({ low, high }) => Array.from(low, (v, k) => [v, high[k]]));
    const none = [NaN, NaN];
    expect(ends).toEqual([
      // One turn further down: from the third frequency on.
      [none, none, [160, 180], [-40, -20]],
      [[-20, -10], [-170, -160], [-180, -170], none],
    ]);
    expect(new Set(parts.map((p) => p.id)).size).toBe(2);
  });
});

describe('curves', () => {
  test('level and phase are the very arrays of the trace', () => {
    const one = trace([10, 100], [0, -3], [-10, -45]);
    expect(curveOf('level', one, true)).toEqual({ x: one.frequenciesHz, y: one.levelDb });
    expect(curveOf('phase', one, false).y).toBe(one.phaseDegrees);
  });

  test('wrapped phase stays within half a turn either way and breaks where it leaves', () => {
    const degrees = fc.array(fc.double({ min: -4000, max: 4000, noNaN: true }), { minLength: 1 });
    fc.assert(
      fc.property(degrees, (phase) => {
        const hz = phase.map((_, k) => 10 * (k + 1));
        const { x, y } = curveOf('phase', trace(hz, phase, phase), true);
        const points = Array.from(y).flatMap((d, k) =>
          Number.isNaN(d) ? [] : [[x[k], d] as const],
        );
        expect(points.map(([at]) => at)).toEqual(hz);
        points.forEach(([, d], k) => {
          expect(Math.abs(d)).toBeLessThanOrEqual(180 + 1e-9);
          // Whole turns apart from what it was.
          const turns = (phase[k] - d) / 360;
          expect(Math.abs(turns - Math.round(turns))).toBeLessThan(1e-9);
        });
      }),
    );
  });

  test('the ideal lies over the built one, keeps lie under both', () => {
    const layers = (['ideal', 'built', 'keep:a', 'keep:b'] as const).map((id) =>
      layer(id, [10, 100], [0, -1], [0, -9]),
    );
    expect(sheetLayers('level', layers, null, false).map((l) => l.id)).toEqual([
      'keep:a',
      'keep:b',
      'built',
      'ideal',
    ]);
  });

  test('delay shows the layers whose delay is there', () => {
    const layers = [layer('ideal', [10], [0], [0]), layer('built', [10], [0], [0])];
    const seconds = { frequenciesHz: Float64Array.of(10), seconds: Float64Array.of(1e-3) };
    const drawn = sheetLayers('delay', layers, new Map([['built', seconds]]), false);
    expect(drawn.map((l) => [l.id, l.y])).toEqual([['built', seconds.seconds]]);
    expect(sheetLayers('delay', layers, null, false)).toEqual([]);
  });
});

describe('takes', () => {
  test('show what was measured, and no phase where none was', () => {
    const bare = { ...TAKE, id: 't2', phaseDegrees: undefined };
    expect(takeLayers('level', [TAKE, bare], false).map((l) => l.y)).toEqual([
      TAKE.levelDb,
      TAKE.levelDb,
    ]);
    expect(takeLayers('phase', [TAKE, bare], false).map((l) => l.id)).toEqual(['take t1']);
    expect(takeLayers('delay', [TAKE], false)).toEqual([]);
  });

  test('their phase is wrapped with everything else', () => {
    const far = { ...TAKE, phaseDegrees: [-190, -370, 725] };
    const [{ y }] = takeLayers('phase', [far], true);
    expect(Array.from(y)).toEqual([170, -10, 5]);
  });
});

test('what is wanted reaches to the edge on its open side', () => {
  const [above, below] = wantedLayers([
    { fromHz: 0, toHz: 100, above: -40 },
    { fromHz: 200, toHz: Infinity, below: -3 },
  ]);
  expect(above).toMatchObject({
    kind: 'band',
    look: 'wanted',
    low: [-40, -40],
    high: [Infinity, Infinity],
  });
  expect(below).toMatchObject({ x: [200, Infinity], low: [-Infinity, -Infinity], high: [-3, -3] });
});

describe('the upright axis', () => {
  test('has room for every curve and every take', () => {
    const lines = [lineOf('built', 'built', { x: [10, 100], y: [0, -20] })];
    const takes = takeLayers('level', [{ ...TAKE, levelDb: [9, 0, -30] }], false);
    const { domain } = axisFor('level', lines, takes, []);
    expect(domain[1]).toBeGreaterThanOrEqual(9);
    expect(domain[0]).toBeLessThanOrEqual(-30);
  });

  test('of delay goes by where there is a signal, not by what lies beside a zero', () => {
    const one = layer('built', [10, 100, 1000], [0, 0, -90], [0, 0, 0]);
    const lines = [lineOf('built', 'built', { x: [10, 100, 1000], y: [1e-3, 2e-3, 5] })];
    expect(axisFor('delay', lines, [], [one]).domain[1]).toBeLessThan(0.01);
  });
});

test('of a real sheet: the built curve falls to half power at the asked edge', () => {
  const { layers } = new SheetEvaluator().evaluate(newSheet(LOW_PASS));
  const drawn = sheetLayers('level', layers, null, false);
  const ideal = drawn.find((l) => l.id === 'ideal')!;
  expect(valueAt(ideal.x, ideal.y, LOW_PASS.edgeHz!)).toBeCloseTo(-3.01, 1);
  const axis = axisFor('level', drawn, [], layers);
  expect(axis.ticks).toContain(0);
});
