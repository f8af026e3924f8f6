import { ReedError } from '@/core/errors';
import { minimumPhaseDegrees } from '@/core/speaker/minimum-phase';
import { readTable } from '@/core/speaker/tables/read-table';
import { readArgs, readText, required, UsageError, type Command } from '../command';

/** The phase that belongs to a level. */
export const minimumPhase: Command = {
  name: 'minimum-phase',
  usage: 'TABLE.csv --low-slope DB --high-slope DB',
  summary: 'the phase of a minimum-phase response, from a table of its level',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { 'low-slope': { type: 'string' }, 'high-slope': { type: 'string' } },
      1,
    );
    const slope = (name: 'low-slope' | 'high-slope') => {
      const text = required(name, values[name]);
      const number = Number(text);
      if (text.trim() === '' || !(Math.abs(number) <= 200))
        throw new UsageError(`--${name} must be dB an octave from -200 to 200`);
      return number;
    };
    const tails = { lowSlope: slope('low-slope'), highSlope: slope('high-slope') };
    const { rows, refused } = readTable(readText(positionals[0]));
    if (rows.length < 2)
      throw new ReedError('document', 'The table has one row; a phase needs two or more.');
    const frequenciesHz = rows.map((r) => r.frequencyHz);
    const phaseDegrees = minimumPhaseDegrees(
      frequenciesHz,
      rows.map((r) => r.value),
      tails,
    );
    return { frequenciesHz, phaseDegrees, ...(refused.length > 0 ? { refused } : {}) };
  },
};
