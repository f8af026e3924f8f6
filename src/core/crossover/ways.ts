import { ReedError } from '@/core/errors';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet, Way } from '@/core/sheet/schema';
import { MIDDLE } from '@/core/speaker/place';
import { isActive, stageOfActive } from './active';
import { driverEnd } from './crossover-design';
import { freshSlotIds, isTurnedOver, redivided } from './make';
import { stageOfSlot } from './stage-of-slot';

/** As many ways as can be told apart in a picture. */
export const MOST_WAYS = 4;

/** A new split lies so far above the highest. */
const ABOVE = 4;
const FIRST_HZ = 2500;
const MOST_SPLIT_HZ = 12_000;
/** A helper ends so far below the lowest split. */
const BELOW = 3;
/** New drivers stand so far from those that they begin as, metres. */
const APART = 0.1;

type Divided = Pick<Sheet, 'parts' | 'ways'> & { crossover: Crossover };

/**
 * One more band above the others, divided from them as they are from each other; it begins with the
 * driver of the way below it.
 *
 * @throws ReedError `range` beyond the most ways, `design` for a split that is too high
 */
export function withBand<D extends Divided>(design: D): D {
  checkRoom(design);
  const { splitsHz, nominalOhms } = design.crossover;
  const top = splitsHz.length;
  const split = Number(
    Math.min(MOST_SPLIT_HZ, (splitsHz[top - 1] ?? FIRST_HZ / ABOVE) * ABOVE).toPrecision(2),
  );
  if (split <= (splitsHz[top - 1] ?? 0))
    throw new ReedError(
      'design',
      'Its split would lie beyond what is heard: lower the others first.',
    );
  const below = design.ways[top];
  const own = beside(design, below, 'top', APART);
  const inverted = isTurnedOver(design.crossover.order, top + 1);
  const way: Way = { ...own, stages: [], to: { ...driverEnd(own), inverted } };
  return redivided(
    { ...design, ways: inserted(design.ways, top + 1, way) },
    {
      ...design.crossover,
      splitsHz: [...splitsHz, split],
      nominalOhms: inserted(nominalOhms, top + 1, nominalOhms[top]),
    },
  );
}

/**
 * A helper: the driver of the lowest way once more, ending well below its split with a gentle slope, as
 * the half of a two-and-a-half-way. It follows no split, and stands behind the others.
 *
 * @throws ReedError `range` beyond the most ways
 */
export function withHelper<D extends Divided>(design: D): D {
  checkRoom(design);
  const { splitsHz, nominalOhms } = design.crossover;
  const [lowest] = design.ways;
  const hz = Number(((splitsHz[0] ?? FIRST_HZ) / BELOW).toPrecision(2));
  const id = freshSlotIds(design)();
  const stage = isActive(lowest)
    ? stageOfActive(id, { topology: 'buffered-rc-low-pass', target: { f0Hz: hz } }, design.parts)
    : stageOfSlot(
        id,
        {
          is: 'section',
          pass: 'low',
          alignment: 'butterworth',
          order: 1,
          hz,
          ohms: nominalOhms[0],
        },
        design.parts,
      );
  const way: Way = { ...beside(design, lowest, 'helper', -APART), stages: [stage] };
  return {
    ...design,
    ways: [...design.ways, way],
    crossover: { ...design.crossover, nominalOhms: [...nominalOhms, nominalOhms[0]] },
  };
}

/**
 * A crossover without one of its ways; the split towards its lower neighbour goes with it.
 *
 * @throws ReedError `range` for the last way
 */
export function withoutWay<D extends Divided>(design: D, id: string): D {
  const index = design.ways.findIndex((w) => w.id === id);
  const { splitsHz, nominalOhms } = design.crossover;
  const isBand = index <= splitsHz.length;
  if (index < 0 || design.ways.length === 1 || (isBand && splitsHz.length === 0))
    throw new ReedError('range', 'A crossover keeps one way at least.');
  const without = <T>(list: readonly T[], at: number) => list.filter((_, i) => i !== at);
  const left = {
    ...design,
    ways: without(design.ways, index),
  };
  const crossover = { ...design.crossover, nominalOhms: without(nominalOhms, index) };
  if (!isBand) return { ...left, crossover };
  return redivided(left, { ...crossover, splitsHz: without(splitsHz, Math.max(0, index - 1)) });
}

function checkRoom({ ways }: Divided): void {
  if (ways.length >= MOST_WAYS)
    throw new ReedError('range', `A crossover holds at most ${MOST_WAYS} ways: remove one first.`);
}

/** A way that ends as another does, a little off it. */
function beside({ ways }: Divided, as: Way, name: string, metres: number): Way {
  const { place = MIDDLE, ...to } = driverEnd(as);
  let [id, n] = [name, 1];
  while (ways.some((w) => w.id === id)) id = `${name}${++n}`;
  return {
    ...as,
    id,
    name: id,
    to: {
      ...to,
      inverted: false,
      place: { ...place, yMetres: Number((place.yMetres + metres).toFixed(4)) },
    },
  };
}

const inserted = <T>(list: readonly T[], at: number, value: T): T[] => [
  ...list.slice(0, at),
  value,
  ...list.slice(at),
];
