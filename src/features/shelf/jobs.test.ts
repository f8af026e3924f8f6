import { mainHz } from '@/core/design/ask';
import { crossoverPicture } from '@/core/crossover/picture';
import { demoDrivers } from '@/core/demo/drivers';
import { withDrivers } from '@/core/sheet/references';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { gate } from '@/core/sheet/gate';
import { beginSheet } from './begin';
import { JOBS, PEOPLE } from './jobs';

const AT = '2026-11-23T08:00:00.000Z';

test('every person finds a beginning', () => {
  for (const who of Object.keys(PEOPLE)) expect(JOBS.some((j) => j.who === who)).toBe(true);
  expect(new Set(JOBS.map((j) => j.id)).size).toBe(JOBS.length);
});

test.each(JOBS.map((j) => [j.title, j] as const))(
  '%s: makes a sheet that computes, also a decade up and down',
  (_, job) => {
    for (const hz of [1, 0.1, 8].map((x) => x * mainHz(job.ask))) {
      const sheet = beginSheet(job, hz, job.title, AT);
      gate(sheet);
      if (sheet.crossover) {
        const whole = withDrivers(sheet, demoDrivers());
        expect(crossoverPicture(whole).problems).toEqual([]);
        expect(sheet.crossover.splitsHz[0]).toBeCloseTo(hz, 6);
        continue;
      }
      const { problems, stages, readings } = new SheetEvaluator().evaluate(sheet);
      if (job.own) {
        // Nothing is drawn yet, and that is what it says.
        for (const problem of problems) expect(problem).toMatch(/Nothing is joined to the output/);
        continue;
      }
      expect(problems).toEqual([]);
      for (const stage of stages) expect(stage.problem).toBeUndefined();
      if (hz === mainHz(job.ask))
        for (const { results } of readings) expect(results.built).toHaveProperty('measured');
    }
  },
);
