import { centreOf, mainHz, type Ask } from '@/core/design/ask';
import { risesAboveZero, type Curve } from '@/core/response/extremes';
import type { JudgedBands } from './judged';
import { gridOver, type ExactDesign } from './exact';

/** A notch is one as long as it is so deep at the asked centre, dB. */
const NOTCH_DB = 20;

/** So far below its centre even the broadest notch has lost nothing. */
const FLAT_BELOW = 1e5;

/** Where a circuit that is not exact is compared with the one that is. */
export interface Keeping {
  grids: Float64Array[];
  /** The exact level, and its values on the grids, dB. */
  exact: Curve;
  exactDb: Float64Array[];
  /** The centre of a notch, whose depth counts too, with the level it is counted from. */
  notch: { hz: number; flatDb: number } | null;
  middleHz: number;
}

export function keepingOf(ask: Ask, bands: JudgedBands, exact: ExactDesign): Keeping {
  const grids = bands.pass.map((band) => gridOver(band, exact));
  const exactDb = grids.map(exact.level);
  return {
    grids,
    exact: exact.level,
    exactDb,
    notch: notchOf(ask, exact),
    middleHz: mainHz(ask),
  };
}

function notchOf(ask: Ask, { level }: ExactDesign): Keeping['notch'] {
  if (ask.kind !== 'notch') return null;
  const { centreHz } = centreOf(ask);
  return { hz: centreHz, flatDb: level(Float64Array.of(centreHz / FLAT_BELOW))[0] };
}

/**
 * How far a circuit stands outside of `keptDb` about the exact levels, dB: positive where it does
 * somewhere. What lies between the grid's points is looked at only where it could decide.
 */
export function closestFit(
  level: Curve,
  { grids, exact, exactDb, notch }: Keeping,
  keptDb: number,
): number {
  let most = -Infinity;
  if (notch) {
    const [at] = level(Float64Array.of(notch.hz));
    most = NOTCH_DB - (notch.flatDb - at);
  }
  const off: Curve = (hz) => outside(level(hz), exact(hz), keptDb);
  for (let g = 0; g < grids.length && !(most > 0); g++)
    most = Math.max(
      most,
      risesAboveZero(off, grids[g], outside(level(grids[g]), exactDb[g], keptDb)),
    );
  return most;
}

/** How far levels stand outside of `keptDb` about what is wanted. */
function outside(there: Float64Array, wanted: Float64Array, keptDb: number): Float64Array {
  const off = new Float64Array(there.length);
  for (let k = 0; k < off.length; k++) off[k] = Math.abs(there[k] - wanted[k]) - keptDb;
  return off;
}
