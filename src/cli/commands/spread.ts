import { ReedError } from '@/core/errors';
import { quantityOfMeasure } from '@/core/response/readings';
import { ENDS } from '@/core/sheet/path-circuit';
import { surroundings } from '@/core/solve/span-of';
import { deviatingBy } from '@/core/spread/rules';
import { Spread } from '@/core/spread/spread';
import { parseQuantity } from '@/core/quantity/parse';
import { readArgs, required, UsageError, wholeNumber, type Command } from '../command';
import { readSubject } from '../subject';
import { rulesOf } from '../tolerances';
import { measureOf } from './solve-for';

const text = { type: 'string' } as const;
const MOST_BOARDS = 100_000;

/** Readings and levels of many boards with parts that are off. */
export const spread: Command = {
  name: 'spread',
  usage:
    'CIRCUIT|ASK|SHEET --probe out --tolerance resistor=1%,capacitor=5% [--shape uniform|normal] [--boards 10000] [--seed 1] [--read MEASURE]… [--at f1,f2]; a tolerance is a kind’s or, by its id, a part’s',
  summary: 'what tolerances make of readings and levels, over many boards',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      {
        probe: text,
        tolerance: text,
        shape: text,
        boards: text,
        seed: text,
        read: { type: 'string', multiple: true },
        at: text,
      },
      1,
    );
    const shape = values.shape ?? 'uniform';
    if (shape !== 'uniform' && shape !== 'normal')
      throw new UsageError('--shape must be uniform or normal');
    const rules = rulesOf(required('tolerance', values.tolerance), { is: shape });
    const boards = wholeNumber('boards', values.boards ?? '10000', 1, MOST_BOARDS);
    const seed = wholeNumber('seed', values.seed ?? '1', 0, 2 ** 32 - 1);
    const measures = (values.read ?? []).map(measureOf);
    const hz = frequenciesIn(values.at);
    if (measures.length === 0 && hz.length === 0)
      throw new UsageError('--read or --at must say what is wanted');
    const subject = readSubject(positionals[0]);
    const probe = values.probe ?? subject.probe;
    const run = new Spread({
      circuit: subject.circuit,
      probe,
      // What stands at both ends of a sheet’s path is not of the board.
      deviating: (analysis) => deviatingBy(analysis, rules, ENDS),
      seed,
      boards,
      levelsAt: hz,
      readings: measures.map((measure) => ({ measure })),
      ...(subject.context ? { context: subject.context } : {}),
      ...surroundings(subject.circuit, probe),
    });
    run.draw(boards);
    const { readings, levels } = run.result();
    return {
      boards,
      seed,
      readings: readings.map((r, i) => {
        const what = { measure: measures[i], quantity: quantityOfMeasure(measures[i]) };
        if (r === null) throw noReading(i);
        const { mean, sd, p1, p5, p50, p95, p99, shares, without, corners } = r;
        return { ...what, mean, sd, p1, p5, p50, p95, p99, shares, without, corners };
      }),
      levels: Object.fromEntries(
        Array.from(levels.hz, (f, k) => [
          String(f),
          { p5: levels.p5[k], p50: levels.p50[k], p95: levels.p95[k] },
        ]),
      ),
    };
  },
};

const noReading = (i: number) =>
  new ReedError('range', `Not one of the boards has reading ${i + 1}: the circuit has none such.`);

function frequenciesIn(text: string | undefined): Float64Array {
  if (text === undefined) return new Float64Array(0);
  return Float64Array.from(text.split(','), (piece) => {
    const hz = parseQuantity(piece, 'hertz');
    if (!(hz > 0)) throw new UsageError(`--at: “${piece}” is not above 0 Hz`);
    return hz;
  });
}
