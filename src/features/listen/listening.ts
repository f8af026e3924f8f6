import { create } from 'zustand';
import { USUAL_PROGRAM, type Program } from '@/core/listen/program';

/** What is compared against: a keep of the sheet, or a cell of another kind. */
export type Against = { is: 'keep'; id: string } | { is: 'cell'; id: string };

interface Listening {
  open: boolean;
  program: Program;
  /** The sheet whose source the program's volts were taken from. */
  of: string | null;
  against: Against | null;
  side: 'a' | 'b';
  /** The file that is played. */
  recording: { name: string; samples: Float64Array; rate: number } | null;
}

/** What is listened to, and how; not part of the sheet. */
export const useListening = create<Listening>()(() => ({
  open: false,
  program: USUAL_PROGRAM,
  of: null,
  against: null,
  side: 'a',
  recording: null,
}));

export const setListening = (change: Partial<Listening>) => useListening.setState(change);

export const changeProgram = (change: Partial<Program>) =>
  useListening.setState(({ program }) => ({ program: { ...program, ...change } }));
