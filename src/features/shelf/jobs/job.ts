import type { Ask } from '@/core/design/ask';
import type { BiasStage } from '@/core/bias/stage';
import type { Cell } from '@/core/cells/cell';
import type { Reading, Sheet, Supply } from '@/core/sheet/schema';
import type { StageAsk } from '@/core/topologies/topology';

/** Who begins a sheet, in the order of the list. */
export const PEOPLE = {
  learner: 'Learning with a resistor and a capacitor',
  builder: 'Building a filter with op-amps',
  tweaker: 'Trimming an amplifier or a line',
  steep: 'Holding limits, or going without power',
  bank: 'Making many bands',
  synth: 'Moving a cut-off by a knob or a voltage',
  speaker: 'Dividing the band among loudspeaker units',
  tracer: 'Drawing up a circuit that exists',
} as const;

/** A stage put in by hand; its frequency is relative to the job's. */
export interface HandStage {
  topology: string;
  target: Omit<StageAsk, 'f0Hz'>;
  /** The impedance that its values start from. */
  ohms?: number;
}

/** A way to begin: what someone wants done, and the ask it starts from. */
export interface Job {
  id: string;
  who: keyof typeof PEOPLE;
  title: string;
  line: string;
  ask: Ask;
  /** Stages that no ask makes; the ask then only places them. */
  stages?: readonly HandStage[];
  /** A volt an octave moves all transconductors of the first of them. */
  controlled?: true;
  /** A stage of one’s own, empty, to be drawn part by part. */
  own?: true;
  /** What such a sheet is judged by, at a frequency. */
  readings?: (hz: number) => Reading[];
  source: { name: string; ohms: number; volts?: number };
  load: { name: string; ohms: number | null };
  /** Centres of a bank's channels, relative to the ask's; the ask then only places it. */
  bank?: readonly number[];
  /** The voltage-controlled cell to begin with, in the middle of its range at the ask’s frequency. */
  cell?: Cell;
  /** The transistor stage to begin with. */
  bias?: BiasStage;
  /** What feeds its op-amps, where that is not the usual. */
  supply?: Supply;
  /** The crossover to begin with, as it is at the ask’s frequency; it is moved along with that. */
  crossover?: (at: string) => Sheet;
}

/** What every ask begins with. */
export const base = { edge: 'half-power' } as const;

/** A level at a frequency, as one reads it. */
export const level = (id: string, hz: number, name?: string): Reading => ({
  id,
  ...(name ? { name } : {}),
  measure: { measure: 'level', atHz: hz },
});
