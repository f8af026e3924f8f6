import fc from 'fast-check';
import { AcAnalysis } from '../ac/ac';
import { filters } from '../testing/circuits';
import { levelBand } from './boards';
import { percentiles } from './percentiles';

test('percentiles are those of the sorted list', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), { minLength: 1, maxLength: 300 }),
      fc.uniqueArray(fc.double({ noNaN: true, min: 0, max: 1 }), { minLength: 1, maxLength: 4 }),
      (list, parts) => {
        parts.sort((a, b) => a - b);
        const sorted = [...list].sort((a, b) => a - b);
        const found = percentiles(Float64Array.from(list), parts);
        parts.forEach((part, i) => {
          const place = part * (list.length - 1);
          const below = Math.floor(place);
          const above = sorted[Math.min(below + 1, list.length - 1)];
          const wanted = sorted[below] + (place - below) * (above - sorted[below]);
          expect(found[i]).toBeCloseTo(wanted, 6);
        });
      },
    ),
  );
});

test('the band of many boards is that of their levels one by one, and values are left as they were', () => {
  fc.assert(
    fc.property(filters, (circuit) => {
      const analysis = new AcAnalysis(circuit);
      const nominal = analysis.values.slice();
      const frequenciesHz = Float64Array.of(100, 1000, 10_000);
      const draw = (board: number, values: Float64Array) =>
        values.forEach((v, i) => (values[i] = v * (1 + 0.02 * Math.sin(7.1 * board + i))));
      const boards = 41;
      const band = levelBand(analysis, {
        probe: 'out',
        frequenciesHz,
        boards,
        draw,
        parts: [0, 0.5, 1],
      });
      expect(analysis.values).toEqual(nominal);
      const levels = Array.from({ length: boards }, (_, board) => {
        const own = new AcAnalysis(circuit);
        draw(board, own.values);
        own.update();
        const { re, im } = own.voltage('out', frequenciesHz);
        return re.map((x, k) => 20 * Math.log10(Math.hypot(x, im[k])));
      });
      frequenciesHz.forEach((_, k) => {
        const own = levels.map((l) => l[k]).sort((a, b) => a - b);
        [own[0], own[20], own[40]].forEach((level, p) => expect(band[p][k]).toBeCloseTo(level, 9));
      });
    }),
    { numRuns: 10 },
  );
});
