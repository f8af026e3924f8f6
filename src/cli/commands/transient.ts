import { transient as transientAnalysis } from '@/core/analysis/transient/transient';
import { quantityOption, readArgs, readCircuitFile, required, type Command } from '../command';
import { probeList } from './ac';

export const transient: Command = {
  name: 'transient',
  usage: 'FILE --probe net[,net…] --until S [--step S]',
  summary: 'voltages over time from the operating point; without --step the grid follows the error',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { probe: { type: 'string' }, until: { type: 'string' }, step: { type: 'string' } },
      1,
    );
    const probes = probeList(values.probe);
    const untilSeconds = required('until', quantityOption('until', values.until, 'seconds'));
    const stepSeconds = quantityOption('step', values.step, 'seconds');
    const result = transientAnalysis(readCircuitFile(positionals[0]), {
      untilSeconds,
      stepSeconds,
      probes,
    });
    return {
      probe: probes[0],
      timesSeconds: result.timesSeconds,
      volts: result.probes[probes[0]],
      probes: result.probes,
    };
  },
};
