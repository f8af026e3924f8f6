import { aboutCentre, bandsOf } from '@/core/design/bands';
import { centreOf, mainHz, type Ask } from '@/core/design/ask';
import type { Band } from '@/core/response/landmarks';

/** Where a candidate is judged. */
export interface JudgedBands {
  /** Two bands about what is stopped; all of `all` for kinds that only lift, cut or turn. */
  pass: Band[];
  /** Where it must be down; empty where nothing is asked to be. */
  stop: Band[];
  /** Everything that is looked at: drawn, and searched for inner peaks. */
  all: Band;
}

/** How far out open bands are judged: fifty times the frequency the ask is about, either way. */
const FAR = 50;
/** A notch's neighbours begin where the ideal one has lost a decibel. */
const BESIDE_A_NOTCH = Math.sqrt(1 / (10 ** 0.1 - 1));

/** The bands of an ask, open ends closed. */
export function judgedBands(ask: Ask): JudgedBands {
  const hz = mainHz(ask);
  const all = { fromHz: hz / FAR, toHz: hz * FAR };
  const { pass, stop } = ask.kind === 'notch' ? { pass: besideNotch(ask), stop: [] } : bandsOf(ask);
  const closed = (bands: Band[]) => bands.map((band) => closedBand(band, all));
  return { pass: closed(pass), stop: closed(stop), all };
}

/** An open end is put where everything that is looked at ends, or as far again beyond it. */
function closedBand({ fromHz, toHz }: Band, all: Band): Band {
  if (fromHz === 0) fromHz = toHz === Infinity || toHz > all.fromHz * 2 ? all.fromHz : toHz / FAR;
  if (toHz === Infinity) toHz = fromHz < all.toHz / 2 ? all.toHz : fromHz * FAR;
  return { fromHz, toHz };
}

/** Where the ideal notch is less than 1 dB down: Q |f/f0 - f0/f| = 1 / sqrt(10^0.1 - 1). */
function besideNotch(ask: Ask): Band[] {
  const { centreHz, q } = centreOf(ask);
  const { fromHz, toHz } = aboutCentre(centreHz, (centreHz * BESIDE_A_NOTCH) / q);
  return [
    { fromHz: 0, toHz: fromHz },
    { fromHz: toHz, toHz: Infinity },
  ];
}
