import { polesAndZeros } from '@/core/analysis/poles/poles';
import { readArgs, readCircuitFile, required, type Command } from '../command';

export const poles: Command = {
  name: 'poles',
  usage: 'FILE --probe net',
  summary: 'poles and zeros in rad/s, f0 and Q of each pair, and whether it is stable',
  run(args) {
    const { values, positionals } = readArgs(args, { probe: { type: 'string' } }, 1);
    return polesAndZeros(readCircuitFile(positionals[0]), required('probe', values.probe));
  },
};
