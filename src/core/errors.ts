/**
 * Every failure of the core is a `ReedError`: a stable code for programs, and for people one line
 * that says what is wrong, where, and what to do about it.
 */
export type ReedErrorCode =
  | 'quantity' // text that is not an engineering value
  | 'circuit' // a circuit document that cannot be read or wired
  | 'singular' // equations without a unique solution
  | 'convergence' // an iteration that found no answer
  | 'range' // a number outside what the method can use
  | 'design' // an ask that no part values can meet
  | 'document' // a sheet or other file that cannot be read
  | 'stopped'; // the caller asked for the work to stop

/** Where a failure sits, as far as it is known: a part id, a net, or a path into a document. */
export interface ReedErrorPlace {
  part?: string;
  net?: string;
  path?: string;
}

export class ReedError extends Error {
  readonly code: ReedErrorCode;
  readonly place: ReedErrorPlace;

  constructor(code: ReedErrorCode, message: string, place: ReedErrorPlace = {}) {
    super(message);
    this.name = 'ReedError';
    this.code = code;
    this.place = place;
  }
}

/** Throws a `stopped` error once `signal` is aborted; long loops call it between slices of work. */
export function stopIfAsked(signal: AbortSignal | undefined): void {
  if (signal?.aborted) throw new ReedError('stopped', 'Stopped on request.');
}

/** The message of anything that was thrown. */
export function messageOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
