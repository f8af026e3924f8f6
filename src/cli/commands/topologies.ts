import { TOPOLOGIES } from '@/core/topologies';
import { readArgs, type Command } from '../command';

export const topologies: Command = {
  name: 'topologies',
  usage: '',
  summary: 'every topology: id, kind, order, op-amps and limits',
  run(args) {
    readArgs(args, {}, 0);
    return {
      topologies: TOPOLOGIES.map(({ id, name, kind, order, opAmps, gain, limits, ownShape }) => ({
        id,
        name,
        kind,
        order,
        opAmps,
        gain,
        limits,
        takes: limits.poles ? 'poles' : ownShape ? 'edge' : 'figures',
      })),
    };
  },
};
