import { useEffect } from 'react';
import { create } from 'zustand';
import type { CrossoverPicture } from '@/core/crossover/picture';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { followOpenLibrary, useOpenLibrary, useSolvedSheet } from '@/store/open-library';
import { engine } from '@/workers/engine';

interface CrossoverState {
  /** The sheet that it is a picture of. */
  sheet: string | null;
  picture: CrossoverPicture | null;
  problem: string | null;
  /** True while the figures are behind the values beside them for too long. */
  stale: boolean;
}

const NOTHING: CrossoverState = { sheet: null, picture: null, problem: null, stale: false };

/** What the open crossover comes to. */
export const useCrossover = create<CrossoverState>()(() => NOTHING);

/** Figures may be this far behind the values before they are greyed, milliseconds. */
const LATE = 300;

let latest: Sheet | null = null;
let running = false;

/** Have the engine answer for this state; of states that come while it works, the last is answered. */
async function answer(sheet: Sheet): Promise<void> {
  latest = sheet;
  if (running) return;
  running = true;
  const late = () => setTimeout(() => useCrossover.setState({ stale: true }), LATE);
  let clock = late();
  try {
    for (let asked = latest; ; asked = latest) {
      try {
        const picture = await engine().crossover(asked);
        if (latest === null) return;
        const problem = picture.problems[0] ?? null;
        useCrossover.setState({ sheet: asked.id, picture, problem, stale: false });
      } catch (error) {
        if (latest === null) return;
        useCrossover.setState({ picture: null, problem: messageOf(error), stale: false });
      }
      clearTimeout(clock);
      if (latest === asked) return;
      clock = late();
    }
  } finally {
    clearTimeout(clock);
    running = false;
  }
}

/** Follow a crossover as long as it is on screen. */
export function useFollowCrossover(open: Sheet): void {
  const sheet = useSolvedSheet(open);
  const loading = useOpenLibrary((s) => s.loading);
  useEffect(followOpenLibrary, []);
  useEffect(() => {
    // What it ends in may be about to come: the effect above has just begun to look for it.
    if (!useOpenLibrary.getState().loading) void answer(sheet);
  }, [sheet, loading]);
  useEffect(
    () => () => {
      latest = null;
      useCrossover.setState(NOTHING);
    },
    [],
  );
}

/** The picture of a sheet; nothing while another's is still there. */
export const usePicture = (id: string): CrossoverPicture | null =>
  useCrossover((s) => (s.sheet === id ? s.picture : null));

/** Something of a sheet’s picture: whoever shows it is drawn again when just that changes. */
export const useFigure = <T>(id: string, of: (picture: CrossoverPicture) => T): T | undefined =>
  useCrossover((s) => (s.sheet === id && s.picture ? of(s.picture) : undefined));
