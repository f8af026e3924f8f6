import type { PartLabel } from '@/core/drawing/labels';
import { printPart } from '@/core/parts/quantities';
import { formatSigned } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { composedId } from '@/core/sheet/path-drawing';
import type { Way } from '@/core/sheet/schema';
import { quantityOfPart, valuesOf } from '@/core/sheet/stage';
import { driverEnd } from './crossover-design';
import { amplifierSymbolId, crossoverNames, driverSymbolId } from './network-drawing';

/** Names and values of all parts, and what each way ends in. */
export function networkLabels(
  ways: readonly Way[],
  mark: DecimalMark = 'point',
): Record<string, PartLabel> {
  const names = crossoverNames(ways);
  const labels: Record<string, PartLabel> = {};
  for (const way of ways) {
    labels[driverSymbolId(way)] = {
      name: driverEnd(way).inverted ? `${way.name}, turned` : way.name,
    };
    const { amplifier } = driverEnd(way);
    if (amplifier)
      labels[amplifierSymbolId(way)] = { name: `${formatSigned(amplifier.gainDb, mark)} dB` };
    for (const stage of way.stages)
      for (const [part, value] of Object.entries(valuesOf(stage)))
        labels[composedId(stage.id, part)] = {
          name: names.get(stage.id)?.get(part) ?? part,
          value: printPart(quantityOfPart(stage, part)!, value, mark),
        };
  }
  return labels;
}
