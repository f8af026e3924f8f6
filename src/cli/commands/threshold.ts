import { threshold as thresholdOf } from '@/core/synth/threshold';
import { readArgs, readCircuitFile, type Command } from '../command';
import { VARY_OPTIONS, VARY_USAGE, varyOptions } from './tune';

export const threshold: Command = {
  name: 'threshold',
  usage: `FILE ${VARY_USAGE}`,
  summary:
    'the first value at which a pair of poles reaches the axis, and the frequency it sings at',
  run(args) {
    const { values, positionals } = readArgs(args, VARY_OPTIONS, 1);
    const { at, from, to } = varyOptions(readCircuitFile(positionals[0]), values);
    return thresholdOf(at, { from, to, even: values.linear === true });
  },
};
