import { readTakeTable } from '@/core/library/take-table';
import { ENDS } from '@/core/sheet/path-circuit';
import { findSuspects } from '@/core/suspects/suspects';
import { readArgs, readText, UsageError, type Command } from '../command';
import { readSubject } from '../subject';
import { rulesOf } from '../tolerances';

const text = { type: 'string' } as const;

/** Which part of a board is off, from a take of it. */
export const suspects: Command = {
  name: 'suspects',
  usage:
    'CIRCUIT|ASK|SHEET TAKE.csv --probe out [--tolerance resistor=1%,capacitor=5%] [--noise-db 0.1]; a take has columns hz, dB and perhaps degrees, at any level',
  summary: 'which part or mistake explains a take, how sure that is, and what to measure next',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { probe: text, tolerance: text, 'noise-db': text },
      2,
    );
    const noiseDb = values['noise-db'] === undefined ? undefined : Number(values['noise-db']);
    if (noiseDb !== undefined && !(noiseDb > 0 && noiseDb <= 20))
      throw new UsageError('--noise-db must be above 0 and at most 20');
    const subject = readSubject(positionals[0]);
    const take = readTakeTable(readText(positionals[1]));
    return findSuspects({
      circuit: subject.circuit,
      probe: values.probe ?? subject.probe,
      take,
      rules: values.tolerance === undefined ? {} : rulesOf(values.tolerance, { is: 'uniform' }),
      // What stands at both ends of a sheet’s path is not of the board.
      fixed: ENDS,
      ...(noiseDb === undefined ? {} : { noiseDb }),
    });
  },
};
