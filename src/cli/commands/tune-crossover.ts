import { SERIES_NAMES, type SeriesName } from '@/core/quantity/series';
import { snap, type Drawer } from '@/core/speaker/tune/snap';
import { mainValue, SpeakerTrial } from '@/core/speaker/tune/trial';
import { achievedBy, limitsOf, tune } from '@/core/speaker/tune/tune';
import { ReedError } from '@/core/errors';
import { readArgs, required, UsageError, writeOut, type Command } from '../command';
import { readSpeakerFile } from '../speaker-file';

const text = { type: 'string' } as const;
const KINDS = { resistors: 'resistor', capacitors: 'capacitor', coils: 'inductor' } as const;

/** Values of a crossover that bring it to its target on its true drivers. */
export const tuneCrossover: Command = {
  name: 'tune-crossover',
  usage: 'SPEAKER --out TUNED.json [--resistors E24] [--capacitors E12] [--coils E12]',
  summary: 'values for the free parts of a speaker that bring it to its target',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { out: text, resistors: text, capacitors: text, coils: text },
      1,
    );
    const out = required('out', values.out);
    const series: NonNullable<Drawer['series']> = {};
    for (const name of ['resistors', 'capacitors', 'coils'] as const) {
      const asked = seriesOf(name, values[name]);
      if (asked) series[KINDS[name]] = asked;
    }
    const document = readSpeakerFile(positionals[0]);
    const trial = new SpeakerTrial(document);
    if (trial.free.length === 0)
      throw new ReedError(
        'document',
        'The target frees no part: list the parts that may change in “free”.',
      );
    const before = achievedBy(document);
    const [best] = tune(trial);
    const tuned = trial.with(best.x);
    const after = achievedBy(tuned);
    const snaps = Object.keys(series).length > 0;
    const result = snaps ? trial.with(snap(trial, best, { series }, limitsOf(trial)).x) : tuned;
    writeOut(out, `${JSON.stringify(result, null, 2)}\n`);
    return {
      before,
      after,
      ...(snaps ? { snapped: achievedBy(result) } : {}),
      values: Object.fromEntries(
        trial.free.map(({ id }) => [id, mainValue(result.network.find((p) => p.id === id)!).value]),
      ),
    };
  },
};

function seriesOf(name: string, value: string | undefined): SeriesName | undefined {
  if (value === undefined) return undefined;
  const found = SERIES_NAMES.find((s) => s === value);
  if (!found) throw new UsageError(`--${name} must be ${SERIES_NAMES.join(', ')}`);
  return found;
}
