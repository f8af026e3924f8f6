import type { Taper } from '@/core/sheet/knobs/make-knob';

/** What a track of each taper is called. */
export const TAPER_WORDS: Record<Taper, string> = {
  linear: 'linear',
  audio: 'audio',
  'reverse-audio': 'reverse audio',
};
