import { useEffect, useMemo, useRef, useState } from 'react';
import { ReedError } from '@/core/errors';
import type { BandedLens, CurveBand } from '@/core/lenses/bands';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary, useSolvedSheet } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import type { BandLayer } from '@/ui/chart/layers';
import { engine } from '@/workers/engine';
import { LATE, SEED } from './spreads';

/** Enough for a band; the lens is refined up to here while things rest. */
const BOARDS = 300;

export type LensBandsShown = Readonly<Partial<Record<string, CurveBand>>>;

const NONE: LensBandsShown = {};

/**
 * What nine boards in ten stay within in a lens, by curve. While a value is dragged each state is
 * given up for the next as soon as its first bands are there; nothing is shown that is of other
 * values for longer than the eye minds, nor while tolerances are not to be shown.
 */
export function useLensBands(open: Sheet, lens: BandedLens): LensBandsShown {
  const sheet = useSolvedSheet(open);
  const isOn = usePreferences((p) => p.spread) && !sheet.bank;
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const asked = useMemo(
    () => (isOn ? { sheet, lens, drawer, boards: BOARDS, seed: SEED } : null),
    [isOn, sheet, lens, drawer],
  );
  const [found, setFound] = useState<{ of: typeof asked; bands: LensBandsShown } | null>(null);
  const latest = useRef(asked);
  const running = useRef<{ stop: AbortController; shown: boolean } | null>(null);
  useEffect(() => {
    latest.current = asked;
    if (running.current?.shown || !asked) running.current?.stop.abort();
    if (running.current || !asked) return;
    const answer = async () => {
      for (let now = latest.current; now; now = latest.current) {
        const own = { stop: new AbortController(), shown: false };
        running.current = own;
        const show = (bands: LensBandsShown) => {
          if (own.stop.signal.aborted) return;
          own.shown = true;
          setFound({ of: now, bands });
          // Values that moved on meanwhile have waited long enough.
          if (latest.current !== now) own.stop.abort();
        };
        try {
          show(await engine().run('lensBands', now, { signal: own.stop.signal, progress: show }));
        } catch (error) {
          // A lens that cannot be shown of the design says so itself.
          if (!(error instanceof ReedError)) throw error;
        }
        // What was stopped is asked again, if it is still wanted.
        if (latest.current === now && !own.stop.signal.aborted) break;
      }
      running.current = null;
    };
    void answer();
  }, [asked]);
  useEffect(
    () => () => {
      latest.current = null;
      running.current?.stop.abort();
    },
    [],
  );
  const isBehind = found !== null && found.of !== asked;
  const isLate = useLate(isBehind);
  return found && asked && !isLate && found.of?.lens === lens && found.of.sheet.id === sheet.id
    ? found.bands
    : NONE;
}

/** True once something has been so for too long. */
function useLate(isBehind: boolean): boolean {
  const [late, setLate] = useState(false);
  useEffect(() => {
    if (!isBehind) return;
    const timer = setTimeout(() => setLate(true), LATE);
    return () => {
      clearTimeout(timer);
      setLate(false);
    };
  }, [isBehind]);
  return isBehind && late;
}

/** A curve's band as a layer of a picture; nothing where there is none. */
export function bandLayers(band: CurveBand | undefined, id = 'spread'): BandLayer[] {
  if (!band) return [];
  const { at: x, low, high } = band;
  return [{ kind: 'band', id, name: 'spread', look: 'spread', x, low, high }];
}
