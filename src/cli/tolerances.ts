import type { Shape } from '@/core/spread/deviations';
import type { Rules } from '@/core/spread/rules';
import { UsageError } from './command';

/**
 * “resistor=1%,C1=2.5%”.
 *
 * @throws UsageError naming what cannot be read
 */
export function rulesOf(text: string, shape: Shape): Rules {
  return Object.fromEntries(
    text.split(',').map((piece) => {
      const [name, amount] = piece.split('=').map((x) => x.trim());
      const percent = /^(\d+(?:\.\d+)?)\s*%$/.exec(amount ?? '');
      const tolerance = percent ? Number(percent[1]) / 100 : Number(amount || NaN);
      if (!name || !(tolerance >= 0 && tolerance < 1))
        throw new UsageError(
          `--tolerance: “${piece}” is not like resistor=1%, with less than 100 %`,
        );
      return [name, { tolerance, shape }];
    }),
  );
}
