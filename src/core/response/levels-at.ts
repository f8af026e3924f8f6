import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import { levelsDb } from './response';

/**
 * Levels at a net of a circuit as it stands, dB re 1 V, at each frequency.
 *
 * @throws ReedError as solving the circuit
 */
export const levelsAt = (circuit: Circuit, net: string, hz: Float64Array): Float64Array =>
  levelsDb(new AcAnalysis(circuit).voltage(net, hz));
