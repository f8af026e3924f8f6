import { noise as noiseAnalysis } from '@/core/analysis/noise/noise';
import {
  quantityOption,
  readArgs,
  readCircuitFile,
  required,
  UsageError,
  type Command,
} from '../command';
import { FREQUENCY_OPTIONS, frequenciesOf } from '../frequencies';

export const noise: Command = {
  name: 'noise',
  usage: 'FILE --probe net --from F --to F [--points N | --at f1,f2,…]',
  summary: 'noise at a net: spots, totals over the band, contributions by part',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { probe: { type: 'string' }, ...FREQUENCY_OPTIONS },
      1,
    );
    const probe = required('probe', values.probe);
    if (probe.includes(',')) throw new UsageError('--probe takes one net here');
    const fromHz = required('from', quantityOption('from', values.from, 'hertz'));
    const toHz = required('to', quantityOption('to', values.to, 'hertz'));
    const frequenciesHz =
      values.at !== undefined
        ? frequenciesOf({ at: values.at })
        : frequenciesOf({ from: values.from, to: values.to, points: values.points ?? '5' });
    const request = { probe, fromHz, toHz, frequenciesHz };
    const { spots, ...totals } = noiseAnalysis(readCircuitFile(positionals[0]), request);
    return {
      probe,
      fromHz,
      toHz,
      // Where no source reaches the net, there is no input that its noise could be referred to.
      spots: spots.map(({ inputVoltsPerRootHz, ...spot }) =>
        inputVoltsPerRootHz === null ? spot : { ...spot, inputVoltsPerRootHz },
      ),
      ...totals,
    };
  },
};
