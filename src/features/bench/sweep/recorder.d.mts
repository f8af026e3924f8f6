/** Registers the audio thread's part of a sweep, and exports nothing. */
export {};
