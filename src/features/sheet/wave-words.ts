import type { SteadyWave } from '@/core/synth/steady';

/** Waves to choose from. */
export const WAVE_CHOICES: { value: SteadyWave; label: string }[] = [
  { value: 'saw', label: 'Saw' },
  { value: 'square', label: 'Square' },
  { value: 'sine', label: 'Sine' },
];
