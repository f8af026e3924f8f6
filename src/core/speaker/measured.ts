import * as z from 'zod';
import { between, within } from '@/core/quantity/bounds';

/** Points that one table may have. */
export const MOST_ROWS = 5_000;

const listOf = (value: z.ZodNumber) =>
  z
    .array(value)
    .min(2, 'must list at least two points')
    .max(MOST_ROWS, `holds at most ${MOST_ROWS} points`);

const frequenciesHz = listOf(within('hertz'));
const phaseDegrees = listOf(between(-1e6, 1e6)).optional();

/** How a level goes on beyond its table, dB an octave; as for a rising frequency. */
export const slopeSchema = between(-200, 200, ' dB an octave');

/** The level of a unit in front of it, as it was measured. */
export const levelTableSchema = z.strictObject({
  frequenciesHz,
  /** dB re 20 uPa. */
  levelDb: listOf(between(-400, 400)),
  /** Without the delay of the way to the microphone; where it is absent, minimum phase is taken. */
  phaseDegrees,
  /** At the terminals, and how far away it was measured. */
  atVolts: within('volts').default(2.83),
  atMetres: between(0.01, 100, ' m').default(1),
  /** What comes on top of the phase: how much later the sound arrives than from the reference point. */
  delaySeconds: between(-0.1, 0.1, ' s').default(0),
  /** What is done to it before it is used; the rows stay as they were measured. */
  smoothPerOctave: between(1, 96).optional(),
  shiftDb: between(-100, 100, ' dB').default(0),
  /** Another measurement that counts below a frequency, shifted to meet this one there. */
  below: z
    .strictObject({
      frequenciesHz,
      levelDb: listOf(between(-400, 400)),
      phaseDegrees,
      joinHz: within('hertz'),
      shiftDb: between(-100, 100, ' dB').default(0),
    })
    .optional(),
  lowSlope: slopeSchema.default(12),
  highSlope: slopeSchema.default(-12),
});
export type LevelTable = z.infer<typeof levelTableSchema>;

/** The impedance of a unit as it was measured. */
export const impedanceTableSchema = z.strictObject({
  frequenciesHz,
  ohms: listOf(between(1e-3, 1e6, ' Ω')),
  /** Where it is absent, minimum phase is taken. */
  phaseDegrees,
});
export type ImpedanceTable = z.infer<typeof impedanceTableSchema>;

/** What was measured of a unit: it counts where it reaches, and figures beyond. */
export const measuredSchema = z.strictObject({
  level: levelTableSchema.optional(),
  impedance: impedanceTableSchema.optional(),
});
export type Measured = z.infer<typeof measuredSchema>;

/** What is wrong with tables beyond their single fields, and at which of them. */
export function measuredFault({
  level,
  impedance,
}: Measured): { path: string; message: string } | null {
  const at = (path: string, message: string | null) => (message ? { path, message } : null);
  const below = level?.below;
  return (
    (level && at('level', tableFault(level, level.levelDb))) ??
    (below && at('level.below', tableFault(below, below.levelDb))) ??
    (below && at('level.below', joinFault(level, below.joinHz))) ??
    (impedance && at('impedance', tableFault(impedance, impedance.ohms))) ??
    null
  );
}

/** Tables that are joined must reach their join. */
function joinFault({ frequenciesHz, below }: LevelTable, joinHz: number): string | null {
  const rows =
    below!.frequenciesHz.filter((hz) => hz < joinHz).length +
    frequenciesHz.filter((hz) => hz >= joinHz).length;
  return rows < 2 ? 'leaves fewer than two rows where it is joined' : null;
}

function tableFault(
  table: { frequenciesHz: number[]; phaseDegrees?: number[] },
  column: readonly number[],
): string | null {
  const { frequenciesHz: hz, phaseDegrees: phases } = table;
  if (column.length !== hz.length)
    return `lists ${column.length} values for ${hz.length} frequencies`;
  if (phases && phases.length !== hz.length)
    return `lists ${phases.length} phases for ${hz.length} frequencies`;
  const falls = hz.findIndex((f, k) => k > 0 && f <= hz[k - 1]);
  return falls < 0 ? null : `has a frequency that does not rise at point ${falls + 1}`;
}
