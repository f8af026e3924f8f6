import { formatFixed } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { SweepTake } from '@/core/bench/sweep-take';
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

/** What is to be known of a take that was swept; nothing where all is as it should be. */
export function noteOf({ drowned, hasMoved }: Pick<SweepTake, 'drowned' | 'hasMoved'>): string {
  const notes = [
    ...(drowned > 0
      ? [`${drowned} ${drowned === 1 ? 'point was' : 'points were'} drowned in noise and left out.`]
      : []),
    ...(hasMoved ? ['It came differently late each time: phase is left out.'] : []),
  ];
  return notes.join(' ');
}
