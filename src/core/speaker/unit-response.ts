import { over, plus, scaled, times, type Complex } from '@/core/numeric/complex';
import { AIR_DENSITY, AIR_STIFFNESS } from './air';
import type { UnitFigures } from './figures';
import { mechanicsOf } from './mechanics';

/** What a unit does at one frequency, for a volt at its terminals. */
export interface UnitPoint {
  impedanceOhms: Complex;
  /** Velocity of the cone, m/s a volt. */
  velocity: Complex;
  /** Pressure one metre in front of it in half space, pascals a volt. */
  pascals: Complex;
}

const complex = (re: number, im = 0): Complex => ({ re, im });
const ONE = complex(1);

/**
 * A unit in its box, from its figures: voice coil Ze, mechanical impedance
 * Zm = s Mms + 1/(s Cms) + Rms + S^2 Zbox; v = Bl/(Ze Zm + (Bl)^2) a volt, and
 * p = rho s S v/(2 pi) at one metre (L. L. Beranek, "Acoustics", 1954, chapters 3 and 7). Of a vented
 * box that sounds which the air inside is moved by: S v s C Zbox.
 *
 * @param hz above zero
 */
export function unitAt(unit: UnitFigures, hz: number): UnitPoint {
  const { area, compliance, mass, loss, force } = mechanicsOf(unit);
  const w = 2 * Math.PI * hz;
  const s = complex(0, w);
  const { reOhms, leHenries, lossyInductance, mounting } = unit;
  let coil = complex(reOhms, w * leHenries);
  if (lossyInductance) {
    const { henries, ohms } = lossyInductance;
    coil = plus(coil, over(complex(0, w * henries * ohms), complex(ohms, w * henries)));
  }
  const { impedance: box, heard } = boxAt(mounting, s);
  const moving = plus(complex(loss, w * mass - 1 / (w * compliance)), scaled(box, area * area));
  const velocity = over(complex(force), plus(times(coil, moving), complex(force * force)));
  return {
    impedanceOhms: plus(coil, over(complex(force * force), moving)),
    velocity,
    pascals: times(times(scaled(s, (AIR_DENSITY * area) / (2 * Math.PI)), velocity), heard),
  };
}

/** Acoustical impedance that a cone works against, and what part of its movement is heard. */
function boxAt(
  mounting: UnitFigures['mounting'],
  s: Complex,
): { impedance: Complex; heard: Complex } {
  if (mounting.kind === 'open') return { impedance: complex(0), heard: ONE };
  const air = (mounting.litres * 1e-3) / AIR_STIFFNESS;
  const give = scaled(s, air);
  if (mounting.kind === 'closed') return { impedance: over(ONE, give), heard: ONE };
  const wb = 2 * Math.PI * mounting.tuningHz;
  const port = over(ONE, scaled(s, 1 / (wb * wb * air)));
  const leaks = complex(mounting.leakQ === undefined ? 0 : (wb * air) / mounting.leakQ);
  const impedance = over(ONE, plus(plus(give, port), leaks));
  return { impedance, heard: times(give, impedance) };
}
