/** A tone that rises from nearly nothing, so that nobody is startled and nothing is hurt. */
const BEGINS_DB = -60;
const FADE_SECONDS = 0.02;

/**
 * A tone that rises by equal factors in equal times up to full scale times `level`.
 *
 * @param hz of the tone, below half the rate
 */
export function risingTone(hz: number, level: number, seconds: number, rate: number): Float64Array {
  const count = Math.round(seconds * rate);
  const fade = FADE_SECONDS * rate;
  return Float64Array.from({ length: count }, (_, n) => {
    const gain = level * 10 ** ((BEGINS_DB / 20) * (1 - n / count));
    return gain * Math.min(1, (count - n) / fade) * Math.sin((2 * Math.PI * hz * n) / rate);
  });
}

/** What a level that came back is worth, and by how much the source should be changed. */
export interface LevelAdvice {
  is: 'silent' | 'quiet' | 'good' | 'loud' | 'clipped';
  /** The highest point, dB under full scale. */
  peakDb: number;
  /** dB; 0 where it is good, and where nobody can tell. */
  changeDb: number;
}

const SILENT_DB = -80;
/** Between these it is good; what is outside is brought to the middle. */
const GOOD_DB = [-24, -3] as const;
const BEST_DB = -9;
const CLIPPED_DB = -0.05;

/** @param peak the highest point that came back, as a part of full scale */
export function levelAdvice(peak: number): LevelAdvice {
  const peakDb = peak > 0 ? 20 * Math.log10(peak) : -Infinity;
  if (peakDb < SILENT_DB) return { is: 'silent', peakDb, changeDb: 0 };
  const changeDb = Math.round(BEST_DB - peakDb);
  if (peakDb < GOOD_DB[0]) return { is: 'quiet', peakDb, changeDb };
  if (peakDb <= GOOD_DB[1]) return { is: 'good', peakDb, changeDb: 0 };
  return { is: peakDb > CLIPPED_DB ? 'clipped' : 'loud', peakDb, changeDb };
}
