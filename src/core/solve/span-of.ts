import { polesAndZeros } from '@/core/analysis/poles/poles';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { Band, Landmark } from '@/core/response/landmarks';

/** Readings are looked for so far beyond the first and the last of what bends the curve. */
const BEYOND = 1000;
const LEAST_HZ = 1e-3;
const MOST_HZ = 1e9;
const HEARD: Band = { fromHz: 20, toHz: 20_000 };

/** Where a circuit’s curve bends, and where its readings are looked for, from its poles and zeros alone. */
export function surroundings(
  circuit: Circuit,
  probe: string,
): { span: Band; landmarks: Landmark[] } {
  const landmarks = landmarksIn(circuit, probe);
  const hz = [...landmarks.map((l) => l.hz), HEARD.fromHz * 10, HEARD.toHz / 10];
  return {
    landmarks,
    span: {
      fromHz: Math.max(LEAST_HZ, Math.min(...hz) / BEYOND),
      toHz: Math.min(MOST_HZ, Math.max(...hz) * BEYOND),
    },
  };
}

function landmarksIn(circuit: Circuit, probe: string): Landmark[] {
  try {
    const { poleFigures, zeroFigures } = polesAndZeros(circuit, probe);
    return [...poleFigures, ...zeroFigures].flatMap(({ f0Hz, q }) =>
      f0Hz > LEAST_HZ && f0Hz < MOST_HZ ? [{ hz: f0Hz, q: q ?? 0.5 }] : [],
    );
  } catch (error) {
    // What cannot be told apart into poles is still read, only without a hint where to look.
    if (error instanceof ReedError) return [];
    throw error;
  }
}
