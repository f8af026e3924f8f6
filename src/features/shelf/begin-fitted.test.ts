import { mainHz } from '@/core/design/ask';
import { fitted } from '@/core/fit/fit-circuit';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { fitWay } from '@/core/sheet/fit-way';
import { meets } from '@/core/sheet/verdict';
import { AT } from '@/testing/open-sheet';
import { beginSheet } from './begin';
import { JOBS } from './jobs';

// A crossover is tuned on its drivers, not fitted to readings: its own tests hold that.
test.each(JOBS.filter((job) => !job.crossover).map((job) => [job.id, job] as const))(
  '%s begins with its verdicts met',
  (_, job) => {
    const begun = beginSheet(job, mainHz(job.ask), job.title, AT);
    const sheet = {
      ...begun,
      ways: begun.ways.map((_way, way) => fitted(fitWay(begun, { way })).fitted),
    };
    const { readings } = new SheetEvaluator().evaluate(sheet);
    sheet.readings.forEach(({ wanted }, i) => {
      if (!wanted) return;
      const built = readings[i].results.built!;
      expect(built).toHaveProperty('measured');
      if ('measured' in built) expect(meets(wanted, built.measured.value)).toBe(true);
    });
  },
);
