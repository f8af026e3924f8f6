import { spaced } from '@/core/response/landmarks';
import { readFault } from '@/core/rig/fault';
import { measureBoard, type Measured } from '@/core/rig/rig';
import type { Rules } from '@/core/spread/rules';
import type { Subject } from './circuits';

export const CLOSE: Rules = {
  resistor: { tolerance: 0.01 },
  capacitor: { tolerance: 0.01 },
  inductor: { tolerance: 0.01 },
};
export const EVERYDAY: Rules = {
  ...CLOSE,
  capacitor: { tolerance: 0.05 },
  inductor: { tolerance: 0.05 },
};

const POINTS = 61;
const BEYOND = 30;

/** A board with a fault, measured at the rig. */
export const faulty = (
  { circuit, hz }: Pick<Subject, 'circuit' | 'hz'>,
  fault: string,
  seed: number,
  { rules = CLOSE, noiseDb = 0.1 }: { rules?: Rules; noiseDb?: number } = {},
): Measured =>
  measureBoard({
    circuit,
    probe: 'out',
    frequenciesHz: Array.from(spaced(hz / BEYOND, hz * BEYOND, POINTS)),
    seed,
    rules,
    faults: fault === '' ? [] : [readFault(fault, circuit)],
    noiseDb,
  });

/** A take without its phases: what most benches have. */
export function levelsOnly({ take }: Measured): Measured['take'] {
  const { frequenciesHz, levelDb } = take;
  return { frequenciesHz, levelDb };
}
