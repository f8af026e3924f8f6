/** Registers the audio thread's part of the player, and exports nothing. */
export {};
