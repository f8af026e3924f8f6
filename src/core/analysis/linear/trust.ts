/*
 * How far a solution by a prescribed order of pivots may be trusted.
 *
 * With r = |pivot| / largest term that went into it, over all pivots, what elimination in a
 * prescribed order loses is about eps / r (see docs/engine.md for the literature and what was
 * measured). Solvers report 1 / r^2, which costs no root.
 */

/** Sound as it is: r of at least 3e-3. */
export const SOUND = 1 / 3e-3 ** 2;

/**
 * Down to r = 1e-6 for the changes in a time step: they are thousandths of the unknowns and less, and
 * lose no more than some 1e-9 of themselves.
 */
export const SOUND_CHANGES = 1e12;

/** Down to r = 1e-8 one step of refinement with the same factors brings back what was lost. */
export const REFINABLE = 1e16;
