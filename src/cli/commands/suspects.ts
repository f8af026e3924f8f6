import type { Circuit } from '@/core/circuit/schema';
import { readTakeTable } from '@/core/library/take-table';
import { ENDS, SOURCE_OHMS } from '@/core/sheet/path-circuit';
import { drivenByCurrent, OHMS_KNOWN_DB } from '@/core/suspects/impedance';
import { findSuspects, type TakeRequest } from '@/core/suspects/suspects';
import { readArgs, readText, UsageError, type Command } from '../command';
import { readSubject } from '../subject';
import { rulesOf } from '../tolerances';

const text = { type: 'string' } as const;

/** Which part of a board is off, from a take of it. */
export const suspects: Command = {
  name: 'suspects',
  usage:
    'CIRCUIT|ASK|SHEET TAKE.csv --probe out [--tolerance resistor=1%,capacitor=5%] [--noise-db 0.1] [--also NET=TAKE.csv]… [--impedance OHMS.csv]; a take has columns hz, dB and perhaps degrees, at any level',
  summary: 'which part or mistake explains a take, how sure that is, and what to measure next',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      {
        probe: text,
        tolerance: text,
        'noise-db': text,
        also: { type: 'string', multiple: true },
        impedance: text,
      },
      2,
    );
    const noiseDb = values['noise-db'] === undefined ? undefined : Number(values['noise-db']);
    if (noiseDb !== undefined && !(noiseDb > 0 && noiseDb <= 20))
      throw new UsageError('--noise-db must be above 0 and at most 20');
    const subject = readSubject(positionals[0]);
    const take = readTakeTable(readText(positionals[1]));
    const known = {
      rules: values.tolerance === undefined ? {} : rulesOf(values.tolerance, { is: 'uniform' }),
      // What stands at both ends of a sheet’s path is not of the board.
      fixed: ENDS,
      ...(noiseDb === undefined ? {} : { noiseDb }),
    };
    const { circuit } = subject;
    return findSuspects({
      ...known,
      circuit,
      probe: values.probe ?? subject.probe,
      take,
      beside: [
        ...(values.also ?? []).map((told) => ({ ...known, circuit, ...takeAt(told) })),
        ...(values.impedance === undefined
          ? []
          : [{ ...known, ...ohmsOf(circuit, values.impedance) }]),
      ],
    });
  },
};

/** “mid=TAKE.csv” */
function takeAt(told: string): Pick<TakeRequest, 'probe' | 'take'> {
  const at = told.indexOf('=');
  if (at <= 0) throw new UsageError('--also is a net and a take: --also mid=TAKE.csv');
  return { probe: told.slice(0, at), take: readTakeTable(readText(told.slice(at + 1))) };
}

/** Ohms that the source of a circuit sees. */
const ohmsOf = (circuit: Circuit, path: string) => ({
  ...drivenByCurrent(circuit, SOURCE_OHMS),
  take: readTakeTable(readText(path), 'impedance'),
  gainSdDb: OHMS_KNOWN_DB,
});
