import { harmonics as harmonicsAnalysis } from '@/core/analysis/harmonics/harmonics';
import {
  quantityOption,
  readArgs,
  readCircuitFile,
  required,
  UsageError,
  type Command,
} from '../command';

export const harmonics: Command = {
  name: 'harmonics',
  usage: 'FILE --probe net --frequency F --amplitude V [--source ID] [--count N]',
  summary: 'harmonics and distortion of a net for a sine from a source',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      {
        probe: { type: 'string' },
        frequency: { type: 'string' },
        amplitude: { type: 'string' },
        source: { type: 'string' },
        count: { type: 'string' },
      },
      1,
    );
    const count = Number(values.count ?? 9);
    if (!Number.isInteger(count) || count < 1 || count > 100)
      throw new UsageError('--count must be a whole number from 1 to 100');
    return harmonicsAnalysis(readCircuitFile(positionals[0]), {
      probe: required('probe', values.probe),
      frequencyHz: required('frequency', quantityOption('frequency', values.frequency, 'hertz')),
      amplitude: required('amplitude', quantityOption('amplitude', values.amplitude, 'volts')),
      source: values.source,
      harmonics: count,
    });
  },
};
