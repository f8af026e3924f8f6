import { polesAndZeros, type RootFigures } from '@/core/analysis/poles/poles';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { Band, Landmark } from '@/core/response/landmarks';

/** Readings are looked for so far beyond the first and the last of what bends the curve. */
const BEYOND = 1000;
const LEAST_HZ = 1e-3;
const MOST_HZ = 1e9;
const MIDDLE: Band = { fromHz: 200, toHz: 2000 };

/** Where a circuit’s curve bends, and where its readings are looked for, from its poles and zeros alone. */
export function surroundings(
  circuit: Circuit,
  probe: string,
): { span: Band; landmarks: Landmark[] } {
  const landmarks = landmarksIn(circuit, probe);
  return { landmarks, span: spanAround(landmarks, MIDDLE) };
}

/** Far beyond what bends a curve, and beyond a band that is looked at in any case. */
export function spanAround(landmarks: readonly Landmark[], { fromHz, toHz }: Band): Band {
  const hz = [...landmarks.map((l) => l.hz), fromHz, toHz];
  return {
    fromHz: Math.max(LEAST_HZ, Math.min(...hz) / BEYOND),
    toHz: Math.min(MOST_HZ, Math.max(...hz) * BEYOND),
  };
}

/** Where poles and zeros bend a curve, as far as they lie where anything is read. */
export const landmarksOf = (figures: readonly Pick<RootFigures, 'f0Hz' | 'q'>[]): Landmark[] =>
  figures.flatMap(({ f0Hz, q }) =>
    f0Hz > LEAST_HZ && f0Hz < MOST_HZ ? [{ hz: f0Hz, q: q ?? 0.5 }] : [],
  );

function landmarksIn(circuit: Circuit, probe: string): Landmark[] {
  try {
    const { poleFigures, zeroFigures } = polesAndZeros(circuit, probe);
    return landmarksOf([...poleFigures, ...zeroFigures]);
  } catch (error) {
    // What cannot be told apart into poles is still read, only without a hint where to look.
    if (error instanceof ReedError) return [];
    throw error;
  }
}
