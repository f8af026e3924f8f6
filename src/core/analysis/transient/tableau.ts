/**
 * The one-step method: six stages, of which the first is known and the others are solved one after
 * the other with the same matrix; order 4, with an embedded solution of order 3 for the error;
 * L-stable, and ending in its last stage, so that it damps whatever is faster than a step and leaves
 * nothing of what an algebraic unknown was before a jump (C. A. Kennedy, M. H. Carpenter, "Additive
 * Runge-Kutta Schemes for Convection-Diffusion-Reaction Equations", Applied Numerical Mathematics
 * 44, 2003: ARK4(3)6L[2]SA, the implicit part).
 */
export const DIAGONAL = 1 / 4;

/** Weights of the earlier stages' rates in each stage; the last row are those of the step. */
export const EARLIER: readonly (readonly number[])[] = [
  [],
  [1 / 4],
  [8611 / 62500, -1743 / 31250],
  [5012029 / 34652500, -654441 / 2922500, 174375 / 388108],
  [15267082809 / 155376265600, -71443401 / 120774400, 730878875 / 902184768, 2285395 / 8070912],
  [82889 / 524892, 0, 15625 / 83664, 69875 / 102672, -2260 / 8211],
];

const EMBEDDED = [
  4586570599 / 29645900160,
  0,
  178811875 / 945068544,
  814220225 / 1159782912,
  -3700637 / 11593932,
  61727 / 225920,
];

/** Where in the step each stage lies. */
export const NODES = [0, 1 / 2, 83 / 250, 31 / 50, 17 / 20, 1];

export const STAGES = NODES.length;

/** What the solutions of order 4 and 3 differ by, in rates of the stages. */
export const DIFFERENCE = EMBEDDED.map(
  (weight, i) => (i === STAGES - 1 ? DIAGONAL : EARLIER[STAGES - 1][i]) - weight,
);
