import { operatingPoint } from '@/core/analysis/dc/operating-point';
import { readArgs, readCircuitFile, type Command } from '../command';

export const dc: Command = {
  name: 'dc',
  usage: 'FILE',
  summary: 'operating point: node volts, currents, power',
  run(args) {
    const { positionals } = readArgs(args, {}, 1);
    return operatingPoint(readCircuitFile(positionals[0]));
  },
};
