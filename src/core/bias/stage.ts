import type { CellPart } from '@/core/cells/cell';
import type { Drawing } from '@/core/drawing/drawing';

/** What a transistor stage is planned from. */
export interface BiasAsk {
  /** Of its supply. */
  volts: number;
  /** Of its last transistor at rest. */
  amps: number;
  /** Volts out for volts in, however they are turned; a follower has one. */
  gain: number;
  sourceOhms: number;
  loadOhms: number;
}

/** What is to be known of a stage: at rest, and for a small signal. */
export interface BiasFigures {
  gain: number;
  inputOhms: number;
  outputOhms: number;
  /** Of each transistor, by part. */
  rest: Record<string, { base: number; emitter: number; collector: number; amps: number }>;
}

export type BiasParts = Record<string, CellPart>;
/** A value of a planned part. */
export type BiasValues = (part: string) => number;

/** A transistor stage with its bias: one file each. */
export interface BiasStage {
  id: string;
  name: string;
  /** What it is beside another one that it improves. */
  short: string;
  drawing: Drawing;
  /** Whether its gain can be asked for. */
  hasGain: boolean;
  plan(ask: BiasAsk): BiasParts;
  /** By rule of thumb: 0.6 V from base to emitter, 25 mV over the current, ten times the base current. */
  rules(values: BiasValues, ask: BiasAsk): BiasFigures;
  /** Its divider, and the base that it feeds. */
  divider: { upper: string; lower: string; base: string } | null;
  /** Others that it could become, and what that does. */
  improve: readonly { to: string; by: string }[];
  about: string;
}

/** Rules of thumb. */
export const BASE_EMITTER = 0.6;
export const THUMB_VOLTS = 25e-3;
export const TIMES = 10;
/** Current gain that is planned with. */
export const BETA = 200;
/** Coupling capacitors pass from here. */
const LOWEST_HZ = 10;

export const beside = (...ohms: number[]): number => 1 / ohms.reduce((sum, r) => sum + 1 / r, 0);

/** Farads that pass from the lowest frequency on into a resistance. */
export const coupling = (ohms: number): number => 1 / (2 * Math.PI * LOWEST_HZ * ohms);
