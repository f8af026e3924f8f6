import { ReedError } from '@/core/errors';
import { firstIssue } from '@/core/document/issue';
import { parseJson } from '@/core/document/json';
import { measureSchema, quantityOfMeasure, type Measure } from '@/core/response/readings';
import { solveFor as solve } from '@/core/solve/solve-for';
import { surroundings } from '@/core/solve/span-of';
import { quantityOption, readArgs, required, UsageError, type Command } from '../command';
import { readSubject } from '../subject';

const text = { type: 'string' } as const;

/** The values of a part that bring a reading to what is wanted. */
export const solveFor: Command = {
  name: 'solve-for',
  usage:
    'CIRCUIT|ASK|SHEET --probe out --part ID --read MEASURE --want VALUE [--from VALUE] [--to VALUE]; a part may be named with its field, as A1.gainBandwidthHz',
  summary: 'what a part must be so that a reading is as wanted; every value that does it',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { probe: text, part: text, read: text, want: text, from: text, to: text },
      1,
    );
    const part = required('part', values.part);
    const measure = measureOf(required('read', values.read));
    const want = quantityOption('want', required('want', values.want), quantityOfMeasure(measure))!;
    const subject = readSubject(positionals[0]);
    const probe = values.probe ?? subject.probe;
    const { solutions, why, field, from, to } = solve({
      circuit: subject.circuit,
      probe,
      part,
      measure,
      want,
      from: quantityOption('from', values.from, 'ratio'),
      to: quantityOption('to', values.to, 'ratio'),
      ...(subject.context ? { context: subject.context } : {}),
      ...surroundings(subject.circuit, probe),
    });
    return { solutions, why, part, field, from, to };
  },
};

/** @throws UsageError naming what is wrong with it */
export function measureOf(text: string): Measure {
  let document: unknown;
  try {
    document = parseJson(text, '--read');
  } catch (error) {
    if (error instanceof ReedError) throw new UsageError(error.message);
    throw error;
  }
  const parsed = measureSchema.safeParse(document);
  if (parsed.success) return parsed.data;
  const { path, message } = firstIssue(parsed.error, document);
  throw new UsageError(`--read: ${path === '' ? 'the measure' : path} ${message}`);
}
