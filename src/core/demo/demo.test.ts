import { readSheet } from '@/core/sheet/read';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import made from './made.json';
import { demoSheets, MADE_AT } from './sheets';

const AT = '2026-11-23T08:00:00.000Z';

describe('the demo sheets', () => {
  test.each(demoSheets(AT).map((s) => [s.title, s] as const))(
    '%s is a valid sheet that computes without problems',
    (_, sheet) => {
      expect(readSheet(JSON.parse(JSON.stringify(sheet)))).toEqual(sheet);
      const evaluation = new SheetEvaluator().evaluate(sheet);
      expect(evaluation.problems).toEqual([]);
      for (const { results } of evaluation.readings) {
        for (const result of Object.values(results)) expect(result).toHaveProperty('measured');
      }
    },
  );
});

test('what browsers put on a new shelf is what is designed here', () => {
  expect(made).toEqual(JSON.parse(JSON.stringify(demoSheets(MADE_AT))));
});
