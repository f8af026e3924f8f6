import { formatFixed } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { LevelAdvice } from '@/core/sweep/level-check';

/** What comes back, and whether that does. */
export function adviceWords({ is, peakDb }: LevelAdvice, mark: DecimalMark): string {
  const back = `${formatFixed(peakDb, 0, mark)} dB under full scale comes back`.replace('−', '');
  switch (is) {
    case 'silent':
      return 'Nothing comes back: see that the board’s output leads to the input, and that neither is muted.';
    case 'quiet':
      return `${back}: noise will be near.`;
    case 'good':
      return `${back}: good.`;
    case 'loud':
      return `${back}: a little more clips.`;
    case 'clipped':
      return 'The input clips: turn the source down.';
  }
}
