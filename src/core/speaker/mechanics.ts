import { AIR_STIFFNESS } from './air';
import type { Mechanics, UnitFigures } from './figures';

/**
 * Mechanical figures from those of a data sheet, with w = 2 pi fs: Cms = Vas/(rho c^2 S^2),
 * Mms = 1/(w^2 Cms), Rms = w Mms/Qms, (Bl)^2 = w Mms Re/Qes.
 */
export function mechanicsOf(
  unit: Pick<UnitFigures, 'fsHz' | 'qms' | 'qes' | 'vasLitres' | 'reOhms' | 'sdSquareCentimetres'>,
): Mechanics {
  const w = 2 * Math.PI * unit.fsHz;
  const area = unit.sdSquareCentimetres * 1e-4;
  const compliance = (unit.vasLitres * 1e-3) / (AIR_STIFFNESS * area * area);
  const mass = 1 / (w * w * compliance);
  return {
    area,
    compliance,
    mass,
    loss: (w * mass) / unit.qms,
    force: Math.sqrt((w * mass * unit.reOhms) / unit.qes),
  };
}
