import { readSheet } from '@/core/sheet/read';
import { crossoverPicture } from '@/core/crossover/picture';
import { withDrivers } from '@/core/sheet/references';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { demoDrivers } from './drivers';
import made from './made.json';
import { demoSheets, MADE_AT } from './sheets';

const SHEETS = demoSheets(MADE_AT);

describe('the demo sheets', () => {
  test.each(SHEETS.map((s) => [s.title, s] as const))(
    '%s is a valid sheet that computes without problems',
    (_, sheet) => {
      expect(readSheet(JSON.parse(JSON.stringify(sheet)))).toEqual(sheet);
      const evaluation = new SheetEvaluator().evaluate(withDrivers(sheet, demoDrivers()));
      expect(evaluation.problems).toEqual([]);
      for (const { results } of evaluation.readings) {
        for (const result of Object.values(results)) expect(result).toHaveProperty('measured');
      }
    },
  );
});

test.each(SHEETS.filter((s) => s.crossover))(
  '$title: the crossover is solved, and every figure of it is read',
  (sheet) => {
    const { layers, problems } = crossoverPicture(withDrivers(sheet, demoDrivers()));
    expect(problems).toEqual([]);
    const built = layers.find((l) => l.id === 'built')!;
    for (const figure of Object.values(built.figures)) expect(figure?.value).not.toBeNaN();
    expect(built.figures.impedance!.value).toBeGreaterThan(3);
  },
);

test('what browsers put on a new shelf is what is designed here', () => {
  expect(made).toEqual(JSON.parse(JSON.stringify(SHEETS)));
});
