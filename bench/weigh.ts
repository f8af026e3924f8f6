import { askSchema } from '@/core/design/ask';
import { candidatesOf } from '@/core/weigh/candidates';
import { weighOne } from '@/core/weigh/weigh';
import { report, time } from './measure';

/** Sixty candidates of the speech filter's ask, each designed, solved and judged. */
export function benchWeighUp(): void {
  const ask = askSchema.parse({ kind: 'low-pass', order: 4, edgeHz: 3400, gainDb: 0 });
  const candidates = candidatesOf(ask);
  const first = performance.now();
  weighOne(candidates[0]);
  const cold = (performance.now() - first) / 1000;
  report(
    `Weigh-up of ${candidates.length} candidates`,
    time(3, () => candidates.forEach((c) => weighOne(c))),
    's',
  );
  report('  first row, cold', [cold], 'ms', 1e3);
}
