import fc from 'fast-check';
import { ReedError } from '@/core/errors';
import { lowPassPrototype } from '@/core/response/prototypes';
import { centreOfPoles, type PoleFigure } from '../figures';
import type { Range, StageAsk, Topology } from '../topology';

const between = ([min, max]: Range) => fc.double({ min, max, noNaN: true });

/** Asks of a topology within its stated limits; a few may still be refused by a further inequality. */
function withinLimits(topology: Topology): fc.Arbitrary<StageAsk> {
  const { q, gain, zero, boost, depth, own = {}, poles } = topology.limits;
  const maybe = (range: Range | undefined) => (range ? between(range) : fc.constant(undefined));
  return fc
    .record({
      f0Hz: fc.double({ min: -1, max: 5.3, noNaN: true }).map((x) => 10 ** x),
      q: maybe(q),
      boost: maybe(boost),
      depth: maybe(depth),
      zero: zero ? fc.option(between(zero), { nil: undefined }) : fc.constant(undefined),
      gain:
        topology.gain === 'given'
          ? fc.constant(undefined)
          : fc.option(between(gain), { nil: undefined }),
      own: fc.record(Object.fromEntries(Object.entries(own).map(([k, r]) => [k, between(r)]))),
      many: poles ? manyPoles(topology, poles) : fc.constant(undefined),
    })
    .map(({ zero: ratio, many, own: figures, ...ask }) => {
      const given = Object.fromEntries(Object.entries(ask).filter((e) => e[1] !== undefined));
      return {
        ...(given as unknown as StageAsk),
        ...(ratio === undefined ? {} : { zeroHz: ask.f0Hz * ratio }),
        ...(Object.keys(figures).length > 0 ? { own: figures } : {}),
        ...(many ? atCentre(topology, many, ask.f0Hz) : {}),
      };
    });
}

interface Many {
  poles: PoleFigure[];
  zerosHz: number[];
}

/** Poles and zeros of a random shape, in units of the edge. */
function manyPoles({ order }: Topology, which: 'all-pole' | 'with-zeros'): fc.Arbitrary<Many> {
  const shapes =
    which === 'with-zeros'
      ? (['elliptic'] as const)
      : (['butterworth', 'chebyshev', 'bessel', 'optimum-l', 'gaussian'] as const);
  return fc
    .record({
      shape: fc.constantFrom(...shapes),
      rippleDb: between([0.05, 1]),
      stopbandDb: between([35, 70]),
    })
    .map((options) => {
      const { sections, zeros } = lowPassPrototype({ ...options, order });
      return {
        poles: sections.map(({ w0, q }) => ({ f0Hz: w0, ...(q === undefined ? {} : { q }) })),
        zerosHz: zeros,
      };
    });
}

function atCentre({ kind }: Topology, { poles, zerosHz }: Many, f0Hz: number) {
  const centre = centreOfPoles(poles);
  const move = (w: number) => (kind === 'high-pass' ? (f0Hz * centre) / w : (f0Hz * w) / centre);
  return {
    f0Hz,
    poles: poles.map((p) => ({ ...p, f0Hz: move(p.f0Hz) })),
    ...(zerosHz.length > 0 ? { zerosHz: zerosHz.map(move) } : {}),
  };
}

/** Asks that the topology takes; those it refuses must be refused in words. */
export function designable(topology: Topology): fc.Arbitrary<StageAsk> {
  return withinLimits(topology).filter((ask) => {
    try {
      topology.design(ask);
      return true;
    } catch (error) {
      if (error instanceof ReedError && error.message.length > 40) return false;
      throw error;
    }
  });
}
