import type { Program } from '@/core/listen/program';
import type { Side, SideState } from '@/core/listen/audition';
import type { Sheet } from '@/core/sheet/schema';

/** What a sheet is heard by: its design, without its history. */
export type HeardSheet = Pick<
  Sheet,
  'parts' | 'source' | 'ways' | 'controls' | 'crossover' | 'bank'
>;

/** What the page says to the worker that plays. */
export type ToPlayer =
  | { is: 'begin'; rate: number; port: MessagePort }
  | { is: 'program'; program: Program }
  | { is: 'recording'; samples: Float32Array | null }
  | { is: 'load'; side: Side; sheet: HeardSheet; way: number }
  | { is: 'unload'; side: Side }
  | { is: 'choose'; side: Side }
  | { is: 'press' | 'release'; semitones: number };

/** What it says of itself, some times a second and whenever something is loaded. */
export interface PlayerState {
  is: 'state';
  sides: Partial<Record<Side, SideState>>;
  /** Why a side is not heard as its sheet is now. */
  problems: Partial<Record<Side, string>>;
  loading: boolean;
  /** Of a core, over the last stretch. */
  share: number;
  /** How far the limiter holds back, as a gain. */
  limiting: number;
  /** Times that there was nothing to play. */
  missed: number;
}

/** To the audio thread: a piece, where it begins, and whether it takes the place of one that lies there. */
export interface ToFeeder {
  at: number;
  joins: boolean;
  samples: Float32Array;
}

/** From the audio thread: what it has played, what it lacked, and what came in. */
export interface FromFeeder {
  played: number;
  missed: number;
  incoming?: Float32Array;
}
