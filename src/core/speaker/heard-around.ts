import { ONE, minus, over, plus, scaled, times, type Complex } from '@/core/numeric/complex';
import { sightOf, type Place } from './place';
import type { Surroundings } from './surroundings';
import { heardAt, type PreparedUnit } from './unit';

/** A baffle so wide has lost half of its 6 dB at 115 Hz over its width in metres. */
const STEP_HZ_METRES = 115;

/**
 * What goes around a baffle to its back, of the pressure that an endless one would have in front:
 * B = 1/2 / (1 + j f/fc). In front there is 1 - B: half far below, all far above, and -3 dB at 115 Hz
 * over the width, where (1/4 + x^2)/(1 + x^2) = 1/2 with x = f/fc. A first-order model of the step that
 * H. F. Olson measured ("Direct Radiator Loudspeaker Enclosures", J. AES 17, 1969); it knows no edges.
 */
export function aroundBaffle(widthMetres: number, hz: number): Complex {
  const corner = (STEP_HZ_METRES / widthMetres) * Math.SQRT2;
  return over({ re: 0.5, im: 0 }, { re: 1, im: hz / corner });
}

/**
 * Pressure at a listener for a volt at a unit's terminals, with what stands around it: a floor sends
 * back what its mirror image would sound, a wall what goes around the baffle, from behind it and in all
 * directions alike.
 */
export function heardAround(
  unit: PreparedUnit,
  place: Place,
  listener: Place,
  hz: number,
  { baffle, floor, wall }: Surroundings = {},
): Complex {
  const behind = baffle ? aroundBaffle(baffle.widthMetres, hz) : { re: 0, im: 0 };
  const ahead = minus(ONE, behind);
  const from = (at: Place): Complex => times(ahead, heardAt(unit, sightOf(at, listener), hz));
  const back = (at: Place): Complex => {
    if (!wall || !baffle) return { re: 0, im: 0 };
    const image = { ...at, zMetres: -2 * wall.behindMetres - at.zMetres };
    const { metres } = sightOf(image, listener);
    return scaled(times(behind, heardAt(unit, { metres, sine: 0 }, hz)), wall.returns);
  };
  const direct = plus(from(place), back(place));
  if (!floor) return direct;
  const below = { ...place, yMetres: -2 * floor.belowMetres - place.yMetres };
  return plus(direct, scaled(plus(from(below), back(below)), floor.returns));
}
