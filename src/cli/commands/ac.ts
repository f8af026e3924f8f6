import { acResponse } from '@/core/analysis/ac/ac';
import { readArgs, readCircuitFile, required, UsageError, type Command } from '../command';
import { FREQUENCY_OPTIONS, FREQUENCY_USAGE, frequenciesOf } from '../frequencies';

export const ac: Command = {
  name: 'ac',
  usage: `FILE --probe net[,net…] ${FREQUENCY_USAGE}`,
  summary: 'small-signal voltages of nets over frequency',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { probe: { type: 'string' }, ...FREQUENCY_OPTIONS },
      1,
    );
    const probes = probeList(values.probe);
    const frequenciesHz = frequenciesOf(values);
    const result = acResponse(readCircuitFile(positionals[0]), { frequenciesHz, probes });
    return { frequenciesHz: result.frequenciesHz, probes: result.probes };
  },
};

/** The nets named by --probe. */
export function probeList(text: string | undefined): string[] {
  const probes = required('probe', text)
    .split(',')
    .map((p) => p.trim())
    .filter((p) => p !== '');
  if (probes.length === 0) throw new UsageError('--probe names no net');
  return probes;
}
