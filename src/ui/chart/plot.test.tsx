import fc from 'fast-check';
import { renderToStaticMarkup } from 'react-dom/server';
import {
  LAYER_KINDS,
  LayerKey,
  kindOf,
  valuesOf,
  type ChartLayer,
  type FieldLayer,
} from './layers';
import { stepPaths } from './layers/field';
import { Plot } from './plot';
import { heightOf, pathOf, scalesOf, type PlotAxis } from './scales';

const box = { x: 40, y: 8, width: 600, height: 300 };
const hertz: PlotAxis = {
  domain: [20, 20_000],
  log: true,
  ticks: [20, 200, 2000, 20_000].map((value) => ({ value, text: String(value) })),
};
const decibels: PlotAxis = {
  domain: [-60, 12],
  ticks: [-60, -36, -12, 12].map((value) => ({ value, text: `${value} dB` })),
};

describe('scales', () => {
  test('ends lie on the ends of the box, upwards and to the right', () => {
    const scales = scalesOf(box, hertz, decibels);
    expect([scales.x(20), scales.x(20_000)]).toEqual([40, expect.closeTo(640, 9)]);
    expect([scales.y(12), scales.y(-60)]).toEqual([8, expect.closeTo(308, 9)]);
    expect(scales.x(Math.sqrt(20 * 20_000))).toBeCloseTo(340, 9);
  });

  test('a place and its value come back from each other, by ratio and by difference', () => {
    const end = fc.double({ min: 1e-3, max: 1e6, noNaN: true });
    fc.assert(
      fc.property(
        end,
        end,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.boolean(),
        (a, b, t, log) => {
          fc.pre(Math.max(a, b) > 1.001 * Math.min(a, b));
          const domain = [Math.min(a, b), Math.max(a, b)] as const;
          const scales = scalesOf(box, { domain, log }, decibels);
          const px = box.x + t * box.width;
          expect(scales.x(scales.valueAt(px))).toBeCloseTo(px, 6);
        },
      ),
    );
  });

  test('a value that is no number breaks the line; what leaves the picture stays near its edge', () => {
    const scales = scalesOf(box, { domain: [1, 100], log: true }, { domain: [-60, 0] });
    const d = pathOf([1, 2, 5, 10, 100], [0, NaN, -10, -20, -Infinity], scales, box);
    expect(d.match(/[ML]/g)!.join('')).toBe('MMLL');
    expect(heightOf(-Infinity, scales, box)).toBe(box.y + box.height + 40);
    expect(heightOf(Infinity, scales, box)).toBe(box.y - 40);
    expect(d).not.toMatch(/NaN|Infinity/);
  });

  test('points are left out only where the line passes close to them all the same', () => {
    const scales = scalesOf(box, hertz, decibels);
    const bend = fc.record({
      hz: fc.double({ min: 20, max: 20_000, noNaN: true }),
      db: fc.double({ min: -30, max: 30, noNaN: true }),
      q: fc.double({ min: 0.2, max: 30, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(bend, { minLength: 1, maxLength: 5 }), (bends) => {
        const x = Array.from({ length: 361 }, (_, k) => 20 * 1000 ** (k / 360));
        const y = x.map((f) =>
          bends.reduce((sum, { hz, db, q }) => sum + db / (1 + (q * (f / hz - hz / f)) ** 2), 0),
        );
        const drawn = pathOf(x, y, scales, box)
          .split(/[ML]/)
          .slice(1)
          .map((point) => point.split(' ').map(Number));
        expect(drawn.length).toBeLessThan(x.length);
        expect(drawn[0][0]).toBeCloseTo(scales.x(x[0]), 1);
        let piece = 1;
        x.forEach((f, k) => {
          const px = scales.x(f);
          while (piece < drawn.length - 1 && drawn[piece][0] < px) piece++;
          const [[ax, ay], [bx, by]] = [drawn[piece - 1], drawn[piece]];
          const at = ay + ((by - ay) * (px - ax)) / (bx - ax);
          // Printed numbers are rounded to a hundredth, along steep lines many times that upwards.
          const rounding = 0.012 * (1 + Math.abs((by - ay) / (bx - ax)));
          expect(Math.abs(at - heightOf(y[k], scales, box))).toBeLessThan(0.05 + rounding);
        });
      }),
      { numRuns: 60 },
    );
  });
});

const LAYERS: Record<ChartLayer['kind'], ChartLayer> = {
  line: { kind: 'line', id: 'l', name: 'Built', look: 'built', x: [20, 200, 2e4], y: [0, -6, -50] },
  band: {
    kind: 'band',
    id: 'b',
    name: 'wanted',
    look: 'wanted',
    x: [0, 200],
    low: [-Infinity, -Infinity],
    high: [-3, -3],
  },
  dots: { kind: 'dots', id: 'd', name: 'Take', look: 'take', x: [30, 31, 900], y: [-1, -1, -9] },
  field: {
    kind: 'field',
    id: 'f',
    name: 'tints',
    look: 'field',
    x: [20, 200, 2000],
    y: [-50, -10],
    values: [
      [-2, -9, -40],
      [-2, -2, -2],
    ],
    steps: [-12, -6],
  },
};
const drawn = (layers: readonly ChartLayer[]) =>
  renderToStaticMarkup(
    <Plot width={680} height={340} x={hertz} y={decibels} left={40} layers={layers} />,
  );

describe('layers', () => {
  test.each(Object.values(LAYERS))('a $kind is drawn, listed and spoken of', (layer) => {
    const kind = kindOf(layer);
    expect(LAYER_KINDS[layer.kind].kind).toBe(layer.kind);
    expect(kind.words.length).toBeGreaterThan(2);
    const picture = drawn([layer]);
    expect(picture).toContain(`data-layer="${layer.id}"`);
    expect(picture).toContain(`class="${layer.look}"`);
    expect(picture).not.toMatch(/NaN|Infinity|undefined/);
    const key = renderToStaticMarkup(<LayerKey kind={layer.kind} look={layer.look} />);
    expect(key).toContain(`aria-label="${kind.words}"`);
    expect(key).toContain(layer.look);
  });

  test('stand in the order in which they are given', () => {
    const ids = [...drawn(Object.values(LAYERS)).matchAll(/data-layer="(\w)"/g)].map((m) => m[1]);
    expect(ids).toEqual(['l', 'b', 'd', 'f']);
  });

  test('a field tints every cell once, those of one step beside each other as one', () => {
    const plot = { x: 40, y: 8, width: 626, height: 308 };
    const scales = scalesOf(plot, hertz, decibels);
    const [faint, full] = stepPaths(LAYERS.field as FieldLayer, scales, plot);
    // Of the lower row one cell in each step, and the last in none; of the upper all as one.
    expect(faint.match(/M/g)).toHaveLength(1);
    expect(full.match(/M/g)).toHaveLength(2);
    expect(full).toContain(`M40.0 8.0H666.0V${scales.y(-30).toFixed(1)}H40.0Z`);
    expect(faint.startsWith(`M${((scales.x(20) + scales.x(200)) / 2).toFixed(1)} `)).toBe(true);
  });

  test('a band reaches the edge where it has no end, and its corners lie on the scales', () => {
    const plot = { x: 40, y: 8, width: 626, height: 308 };
    const scales = scalesOf(plot, hertz, decibels);
    const d = /data-layer="b".* d="([^"]+)"/.exec(drawn([LAYERS.band]))![1];
    const corners = [...d.matchAll(/([\d.]+) ([\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]);
    const top = scales.y(-3);
    expect(corners[0]).toEqual([plot.x, expect.closeTo(top, 1)]);
    expect(corners[1]).toEqual([expect.closeTo(scales.x(200), 1), expect.closeTo(top, 1)]);
    expect(corners[2][1]).toBeGreaterThanOrEqual(plot.y + plot.height);
  });

  test('a band breaks where it has no number, and a stretch of one place is none', () => {
    const broken: ChartLayer = {
      ...LAYERS.band,
      kind: 'band',
      x: [20, 40, 80, 160, 320, 640],
      low: [-9, -9, NaN, -9, NaN, -9],
      high: [-3, -3, -3, -3, -3, NaN],
    };
    const d = /data-layer="b".* d="([^"]+)"/.exec(drawn([broken]))![1];
    expect(d).not.toMatch(/NaN/);
    expect(d.match(/M/g)).toHaveLength(1);
    expect(d.match(/[\d.]+ [\d.]+/g)).toHaveLength(4);
  });

  test('dots that would lie on each other are drawn once', () => {
    expect(drawn([LAYERS.dots]).match(/data-layer="d"/)).not.toBeNull();
    const d = /<path d="([^"]+)"[^>]*data-layer="d"/.exec(drawn([LAYERS.dots]))![1];
    expect(d.match(/M/g)).toHaveLength(2);
  });

  test('what an axis makes room for are curves, dots and fields, not what is to be kept out of', () => {
    expect(valuesOf(Object.values(LAYERS))).toEqual([
      [0, -6, -50],
      [-1, -1, -9],
      [-50, -10],
    ]);
  });
});

test('every tick has its line; words leave each other room', () => {
  const crowded: PlotAxis = {
    ...hertz,
    ticks: Array.from({ length: 60 }, (_, k) => 20 * 1000 ** (k / 59)).map((value) => ({
      value,
      text: value.toFixed(0),
    })),
  };
  const picture = renderToStaticMarkup(
    <Plot width={680} height={340} x={crowded} y={decibels} layers={[]} />,
  );
  const [, grid] = /<path d="([^"]+)" class="grid"/.exec(picture)!;
  expect(grid.match(/V/g)).toHaveLength(crowded.ticks.length);
  expect(grid.match(/H/g)).toHaveLength(decibels.ticks.length);
  for (const { text } of decibels.ticks) expect(picture).toContain(`>${text}<`);
});
