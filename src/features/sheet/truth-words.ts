import type { Truth } from '@/core/sheet/truths';

/** What each term of a difference is: at the head of a column, and in a sentence. */
export const TRUTH_WORDS: Record<Truth, { short: string; long: string }> = {
  values: { short: 'values', long: 'the values of the parts, as they were chosen' },
  wiring: { short: 'wiring', long: 'what was wired otherwise since it was designed' },
  losses: { short: 'losses', long: 'the resistance of coils and capacitors' },
  gain: { short: 'gain', long: 'the finite gain of the op-amps' },
  bandwidth: { short: 'bandwidth', long: 'the gain-bandwidth of the op-amps' },
  output: { short: 'output Ω', long: 'the output resistance of the op-amps' },
  input: { short: 'input C', long: 'the input resistance and capacitance of the op-amps' },
  loading: { short: 'loading', long: 'stages that load each other' },
  reference: {
    short: 'half supply',
    long: 'the half-supply reference that takes the place of ground',
  },
  source: { short: 'source', long: 'the resistance of the source' },
  load: { short: 'load', long: 'what the path ends in' },
};
