import * as z from 'zod';
import { SOUNDS } from './oscillator';

/** The most notes of a sequence. */
export const MOST_NOTES = 16;

/** What is played, and how. */
export const programSchema = z.strictObject({
  /** A tone of its own, a recording, or what comes in. */
  sound: z.enum([...SOUNDS, 'recording', 'input']),
  hz: z.number().min(8).max(12_000),
  /** Amplitude at the source; of a recording what its full scale is. */
  volts: z.number().min(1e-6).max(1000),
  /** Semitones over `hz`, one after the other; nothing for one tone that goes on. */
  notes: z.array(z.int().min(-48).max(60)).max(MOST_NOTES),
  beatsPerMinute: z.number().min(20).max(400),
  /** How the cut-off is opened by each note. */
  attackSeconds: z.number().min(0).max(10),
  decaySeconds: z.number().min(1e-3).max(20),
  /** By so much of the control’s travel. */
  opens: z.number().min(-1).max(1),
  /** The cut-off follows the notes. */
  follows: z.boolean(),
});

export type Program = z.infer<typeof programSchema>;

export const USUAL_PROGRAM: Program = {
  sound: 'saw',
  hz: 110,
  volts: 1,
  notes: [0, 7, 12, 3],
  beatsPerMinute: 96,
  attackSeconds: 0.002,
  decaySeconds: 0.4,
  opens: 0.25,
  follows: false,
};

/** A note that sounds: how high, since when, and whether it is still held. */
export interface Note {
  semitones: number;
  sinceSeconds: number;
}

/** How far a note has opened the cut-off: up to 1 within the attack, then down by the decay. */
export function openedBy({ attackSeconds, decaySeconds }: Program, sinceSeconds: number): number {
  if (sinceSeconds < attackSeconds) return sinceSeconds / attackSeconds;
  return Math.exp(-(sinceSeconds - attackSeconds) / decaySeconds);
}
