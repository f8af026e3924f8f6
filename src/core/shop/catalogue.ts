import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import { inWords } from '@/core/quantity/format';
import { preferredNumbers, type SeriesName } from '@/core/quantity/series';
import { seededRandom } from '@/core/random';
import type { ShopOffer } from './offer';

/*
 * A parts shop that does not exist: what it has, and what it asks for it, is made up. It stands in for
 * an outside shop’s service.
 */

/** A line of parts in every value of a series. */
interface Range {
  id: string;
  kind: 'resistor' | 'capacitor' | 'inductor';
  series: SeriesName;
  from: number;
  to: number;
  make: string;
  tolerance: number;
  ppmPerKelvin?: number;
  ratedVolts?: number;
  ratedWatts?: number;
  /** Of one of a value. */
  price: (value: number) => number;
}

const RANGES: readonly Range[] = [
  {
    id: 'carbon',
    kind: 'resistor',
    series: 'E12',
    from: 10,
    to: 1e6,
    make: 'carbon film',
    tolerance: 0.05,
    ppmPerKelvin: 350,
    ratedWatts: 0.25,
    price: () => 0.02,
  },
  {
    id: 'metal',
    kind: 'resistor',
    series: 'E96',
    from: 10,
    to: 1e6,
    make: 'metal film',
    tolerance: 0.01,
    ppmPerKelvin: 50,
    ratedWatts: 0.6,
    price: () => 0.05,
  },
  {
    id: 'precise',
    kind: 'resistor',
    series: 'E24',
    from: 100,
    to: 330e3,
    make: 'precision metal film',
    tolerance: 0.001,
    ppmPerKelvin: 15,
    ratedWatts: 0.25,
    price: () => 0.38,
  },
  {
    id: 'wound',
    kind: 'resistor',
    series: 'E12',
    from: 0.47,
    to: 100,
    make: 'wire wound',
    tolerance: 0.05,
    ratedWatts: 10,
    price: () => 0.6,
  },
  {
    id: 'ceramic',
    kind: 'capacitor',
    series: 'E12',
    from: 10e-12,
    to: 10e-9,
    make: 'stable ceramic',
    tolerance: 0.05,
    ppmPerKelvin: 30,
    ratedVolts: 50,
    price: (value) => 0.08 + value * 1.2e7,
  },
  {
    id: 'film',
    kind: 'capacitor',
    series: 'E6',
    from: 1e-9,
    to: 2.2e-6,
    make: 'polyester film',
    tolerance: 0.05,
    ppmPerKelvin: 400,
    ratedVolts: 100,
    price: (value) => 0.12 + value * 4e5,
  },
  {
    id: 'close-film',
    kind: 'capacitor',
    series: 'E12',
    from: 1e-9,
    to: 470e-9,
    make: 'polypropylene film',
    tolerance: 0.01,
    ppmPerKelvin: -200,
    ratedVolts: 160,
    price: (value) => 0.45 + value * 5e6,
  },
  {
    id: 'crossover-film',
    kind: 'capacitor',
    series: 'E12',
    from: 1e-6,
    to: 47e-6,
    make: 'polypropylene, large',
    tolerance: 0.05,
    ratedVolts: 250,
    price: (value) => 0.8 + value * 3e5,
  },
  {
    id: 'electrolytic',
    kind: 'capacitor',
    series: 'E6',
    from: 1e-6,
    to: 1e-3,
    make: 'electrolytic',
    tolerance: 0.2,
    ratedVolts: 35,
    price: (value) => 0.09 + value * 500,
  },
  {
    id: 'choke',
    kind: 'inductor',
    series: 'E6',
    from: 100e-6,
    to: 1,
    make: 'ferrite core',
    tolerance: 0.1,
    price: (value) => 0.7 + value * 4,
  },
  {
    id: 'air-coil',
    kind: 'inductor',
    series: 'E12',
    from: 100e-6,
    to: 8.2e-3,
    make: 'air core, 1 mm wire',
    tolerance: 0.03,
    price: (value) => 3 + value * 2200,
  },
];

/** Parts of which few are left, or none. */
const SCARCE = 0.12;
const MOST_PIECES = 400;

let made: readonly ShopOffer[] | undefined;

/** Everything the shop has; the same every time. */
export function catalogue(): readonly ShopOffer[] {
  made ??= [...RANGES.flatMap(offersOf), ...opAmps()];
  return made;
}

function offersOf(range: Range): ShopOffer[] {
  const { id, kind, series, from, to, price, ...rest } = range;
  const random = seededRandom(id.length * 7919 + kind.length);
  const { quantity } = mainQuantity(partKindOf(kind))!;
  const offers: ShopOffer[] = [];
  for (let decade = Math.floor(Math.log10(from)); decade <= Math.log10(to); decade++)
    for (const number of preferredNumbers(series)) {
      const value = Number(`${number}e${decade}`);
      if (value < from * 0.999 || value > to * 1.001) continue;
      const scarce = random() < SCARCE;
      offers.push({
        id: `${id}-${value.toPrecision(4)}`,
        name: `${inWords(value, quantity)} ${rest.make}`,
        kind,
        value,
        ...rest,
        price: Number(price(value).toFixed(2)),
        pieces: scarce ? Math.floor(random() * 4) : 20 + Math.floor(random() * MOST_PIECES),
      });
    }
  return offers;
}

/** Op-amps by what they are. */
const opAmps = (): ShopOffer[] =>
  OP_AMPS.filter(({ model }) => model !== 'ideal').map(({ name }, i) => ({
    id: `op-amp-${i + 1}`,
    name,
    kind: 'op-amp',
    price: [1.9, 0.8, 0.6, 0.9][i] ?? 1,
    pieces: 60 - 9 * i,
  }));
