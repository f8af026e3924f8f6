/** How much one sheet may hold. Whoever would go over is told the limit where it happens. */
export const SHEET_LIMITS = {
  name: 120,
  stages: 40,
  ways: 40,
  readings: 200,
  keeps: 100,
  /** Of one own drawing. */
  symbols: 400,
  wires: 800,
  controls: 40,
  /** Numbers that one control moves. */
  moves: 60,
  boards: 100,
  /** Of a stripboard, along and across. */
  holes: 120,
  /** In the sheet and all its keeps together. */
  allStages: 8_000,
} as const;
