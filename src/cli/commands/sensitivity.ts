import { sensitivity as sensitivityAnalysis } from '@/core/analysis/sensitivity/sensitivity';
import { readArgs, readCircuitFile, required, type Command } from '../command';
import { FREQUENCY_OPTIONS, FREQUENCY_USAGE, frequenciesOf } from '../frequencies';

export const sensitivity: Command = {
  name: 'sensitivity',
  usage: `FILE --probe net ${FREQUENCY_USAGE}`,
  summary: 'd level (dB) and d phase (degrees) by d ln(value) of every part',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { probe: { type: 'string' }, ...FREQUENCY_OPTIONS },
      1,
    );
    const probe = required('probe', values.probe);
    const frequenciesHz = frequenciesOf(values);
    return {
      probe,
      frequenciesHz,
      parts: sensitivityAnalysis(readCircuitFile(positionals[0]), { probe, frequenciesHz }),
    };
  },
};
