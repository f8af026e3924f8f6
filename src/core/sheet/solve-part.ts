import { ReedError } from '@/core/errors';
import type { Measure } from '@/core/response/readings';
import { solveFor, type SolveAnswer } from '@/core/solve/solve-for';
import { outNet, outputNet, prefixOf } from './nets';
import { partNames, pathCircuit } from './path-circuit';
import { readerOptions } from './reader-options';
import type { Output, Sheet } from './schema';

/** What is to be found out: what a part must be so that a reading is as wanted. */
export interface PartQuestion {
  way?: number;
  stage: string;
  part: string;
  measure: Measure;
  at?: Output;
  want: number;
  from?: number;
  to?: number;
}

/**
 * All values of a part of a sheet, as it is built, with which one of its readings is as wanted.
 *
 * @throws ReedError `range` where the part is not in the circuit, or the reading’s place is gone
 */
export function solvePart(sheet: Sheet, question: PartQuestion): SolveAnswer {
  const { way: index = 0, stage, part, measure, at, want, from, to } = question;
  const way = sheet.ways[index];
  const name = partNames(way.stages).get(stage)?.get(part);
  if (name === undefined || way.stages.find((s) => s.id === stage)?.bypassed)
    throw new ReedError('range', `${part} is not in the circuit as it is heard now.`);
  const probe = at ? outputNet(sheet, at, index)?.net : outNet(sheet, index);
  if (probe === undefined)
    throw new ReedError('range', 'The output it is read at is gone or bypassed.');
  return solveFor({
    circuit: pathCircuit(sheet, index, 'built'),
    probe,
    part: `${prefixOf(sheet, index)}${name}`,
    measure,
    want,
    ...(from === undefined ? {} : { from }),
    ...(to === undefined ? {} : { to }),
    ...readerOptions(sheet, index),
  });
}
