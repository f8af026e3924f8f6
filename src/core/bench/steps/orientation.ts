import type { Circuit, PartOf } from '@/core/circuit/schema';
import { formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Supply } from '@/core/sheet/schema';
import { aboveCommon, voltsAtRest } from './at-rest';
import { placeWords, type Meeting } from '../place-words';

/** From here on a capacitor is usually an electrolytic. */
const ELECTROLYTIC_FARADS = 1e-6;
/** Less than this either way does not keep one formed, and may be of either sign on the next board. */
const LEAST_VOLTS = 0.1;

/** Which way round parts lie, by the groups that they are soldered in. */
export interface Orientation {
  diodes?: string;
  capacitors?: string;
}

/**
 * Which way round diodes and electrolytics lie: rings by the drawing, the plus of a capacitor by the
 * voltage that stands across it at rest.
 *
 * @param looked parts that are soldered; at both ends of the board nothing is
 * @param meeting by net, the parts that meet there
 */
export function orientationOf(
  circuit: Circuit,
  looked: (id: string) => boolean,
  meeting: Meeting,
  { mark, supply }: { mark: DecimalMark; supply?: Supply | undefined },
): Orientation {
  const above = aboveCommon(circuit, supply);
  const parts = circuit.parts.filter(({ id }) => looked(id));
  const diodes = parts.filter((p): p is PartOf<'diode'> => p.kind === 'diode');
  const large = parts.filter(
    (p): p is PartOf<'capacitor'> => p.kind === 'capacitor' && p.farads >= ELECTROLYTIC_FARADS,
  );
  const toward = (net: string) => {
    const place = placeWords(net === circuit.ground ? '0' : net, meeting);
    return place.startsWith('where') ? place : `at ${place}`;
  };
  const rest = large.length > 0 ? voltsAtRest(circuit) : undefined;
  return {
    ...(diodes.length > 0
      ? { diodes: diodes.map(({ id, cathode }) => `${id}: ring ${toward(cathode)}`).join('; ') }
      : {}),
    ...(rest
      ? {
          capacitors: large
            .map(({ id, a, b }) => {
              const volts = (rest[a] ?? 0) + above(a) - (rest[b] ?? 0) - above(b);
              if (Math.abs(volts) < LEAST_VOLTS)
                return `${id}: nothing stands across it, so a film or a bipolar one`;
              const across = formatQuantity(Math.abs(volts), 'volts', {
                digits: 2,
                unit: true,
                mark,
              });
              return `${id}, if electrolytic: plus ${toward(volts > 0 ? a : b)}, ${across} across it`;
            })
            .join('; '),
        }
      : {}),
  };
}
