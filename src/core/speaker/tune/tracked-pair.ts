import { GROUND_NET, type PhaseTarget, type SpeakerDocument } from '../document';
import { heardAround } from '../heard-around';
import { prepareUnit } from '../unit';

/** Two ways that are to stay in phase where they meet, over the band of their target. */
export interface TrackedPair {
  /** The nets that drive the lower and the upper way. */
  nets: readonly [lower: string, upper: string];
  /** Phase of the upper before the lower at the listening place, for a volt at both nets, degrees. */
  apartDegrees: Float64Array;
  counts: readonly boolean[];
  within: number;
}

/** Half an octave to either side counts. */
const AROUND = Math.SQRT2;

/** A wish for two ways, ready to be compared; nothing where one of them has no terminal at ground. */
export function trackedPair(
  { drivers, connections, listen, surroundings }: SpeakerDocument,
  { lower, upper, hz, withinDegrees }: PhaseTarget,
  bandHz: Float64Array,
): TrackedPair[] {
  const drives = [lower, upper].map((id) => {
    const { plus, minus } = connections.find((c) => c.driver === id)!;
    const unit = drivers.find((d) => d.id === id)!;
    const prepared = prepareUnit(unit);
    return {
      net: plus === GROUND_NET ? minus : plus,
      floating: plus !== GROUND_NET && minus !== GROUND_NET,
      // A unit that hangs on its minus terminal sounds the other way round.
      turned: plus === GROUND_NET ? 180 : 0,
      degrees: (f: number) => {
        const { re, im } = heardAround(prepared, unit.place, listen, f, surroundings);
        return (Math.atan2(im, re) * 180) / Math.PI;
      },
    };
  });
  const [low, high] = drives;
  if (low.floating || high.floating) return [];
  return [
    {
      nets: [low.net, high.net],
      apartDegrees: bandHz.map((f) => high.degrees(f) + high.turned - low.degrees(f) - low.turned),
      counts: Array.from(bandHz, (f) => f >= hz / AROUND && f <= hz * AROUND),
      within: withinDegrees,
    },
  ];
}

/** Degrees within half a turn. */
export const wrapped = (degrees: number): number => degrees - 360 * Math.round(degrees / 360);
