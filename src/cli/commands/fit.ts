import { readFileSync } from 'node:fs';
import type { Circuit } from '@/core/circuit/schema';
import { AcAnalysis } from '@/core/analysis/ac/ac';
import { messageOf, ReedError } from '@/core/errors';
import {
  circuitOf,
  fitCircuit,
  fitted,
  type CircuitFit,
  type FittedCircuit,
} from '@/core/fit/fit-circuit';
import { PAIRS, type Pairs } from '@/core/fit/offers';
import { supplyOf, type DrawerSupply } from '@/core/fit/stock-of';
import { chosenParts, type Supply } from '@/core/fit/supply';
import { readStockTable, stockEntryOf, stockTable, type BadLine } from '@/core/library/stock-table';
import { SERIES_NAMES, type SeriesName } from '@/core/quantity/series';
import { quantityOfMeasure, readMeasure, ResponseReader } from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { fitWay } from '@/core/sheet/fit-way';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Reading, Sheet } from '@/core/sheet/schema';
import { meets } from '@/core/sheet/verdict';
import { quoted } from '@/core/text';
import { readArgs, UsageError, wholeNumber, writeOut, type Command } from '../command';
import { readSubject, withIdealOpAmps, type Subject } from '../subject';

const text = { type: 'string' } as const;
const MOST_BOARDS = 1_000_000;
const OPTIONS = {
  resistors: text,
  capacitors: text,
  inductors: text,
  stock: text,
  pairs: text,
  trim: text,
  boards: text,
  'op-amp': text,
  probe: text,
  out: text,
};

/** Real values for all parts of a circuit, an ask or a sheet. */
export const fit: Command = {
  name: 'fit',
  usage:
    'CIRCUIT|ASK|SHEET [--resistors E24] [--capacitors E6] [--inductors E12] [--stock STOCK.csv] [--pairs none|parallel|series|both] [--trim R1,R2] [--boards N] [--op-amp ideal|sheet] [--probe net] [--out FITTED.json]',
  summary: 'real part values: each rounded by itself, and all fitted together',
  run(args) {
    const { values, positionals } = readArgs(args, OPTIONS, 1);
    const trim = (values.trim ?? '').split(',').filter((id) => id !== '');
    const stock = values.stock === undefined ? undefined : readStock(values.stock);
    const options: Options = {
      pairs: oneOf('pairs', values.pairs ?? 'none', PAIRS),
      trim,
      boards: wholeNumber('boards', values.boards ?? '1', 1, MOST_BOARDS),
      from: stock?.supply ?? {},
      opAmp: oneOf('op-amp', values['op-amp'] ?? 'sheet', ['ideal', 'sheet'] as const),
      probe: values.probe,
    };
    const asked = {
      resistors: series('resistors', values.resistors),
      capacitors: series('capacitors', values.capacitors),
      inductors: series('inductors', values.inductors),
    };
    const subject = readSubject(positionals[0]);
    const { is } = subject;
    const {
      supply,
      fit: found,
      circuit,
    } = is === 'sheet'
      ? fitSheet(subject.sheet!, asked, options)
      : fitBare(subject, asked, options);
    const told = (choice: FittedCircuit) => {
      const chosen = circuitOf(circuit, choice);
      return {
        circuit: chosen,
        worstDb: choice.worstDb,
        readings: readingsOf(chosen, subject),
      };
    };
    const missing = trim.filter((id) => !found.fitted.chosen.some((c) => c.id === id));
    if (missing.length > 0)
      throw new ReedError(
        'range',
        `There is no part ${quoted(missing[0])} whose value is chosen; there are ${found.fitted.chosen.map((c) => c.id).join(', ')}.`,
      );
    const result = { nearest: told(found.nearest), fitted: told(found.fitted) };
    if (values.out !== undefined)
      writeOut(values.out, `${JSON.stringify(result.fitted.circuit, null, 2)}\n`);
    return {
      ...result,
      parts: found.fitted.chosen.map((c, i) => ({
        id: c.id,
        exact: c.exact,
        nearest: found.nearest.chosen[i].value,
        fitted: c.value,
        made: c.made,
      })),
      from: supply,
      judged: found.judged,
      ...(stock ? { stock: { parts: stock.parts, bad: stock.bad } } : {}),
    };
  },
};

interface Options {
  pairs: Pairs;
  /** Parts that are set with a trimmer. */
  trim: readonly string[];
  boards: number;
  from: DrawerSupply;
  opAmp: 'ideal' | 'sheet';
  probe?: string;
}
type Asked = Partial<Record<'resistors' | 'capacitors' | 'inductors', SeriesName | 'exact'>>;
interface Found {
  supply: Pick<Supply, 'resistors' | 'capacitors' | 'inductors'>;
  fit: CircuitFit;
  /** As it is built, before values are chosen. */
  circuit: Circuit;
}

const USUAL = { resistors: 'E24', capacitors: 'E6', inductors: 'E12' } as const;

const told = (asked: Asked): Asked =>
  Object.fromEntries(Object.entries(asked).filter(([, v]) => v !== undefined));

function fitBare(subject: Subject, asked: Asked, options: Options): Found {
  const supply = { ...USUAL, ...told(asked) };
  const { pairs, trim, boards, from, opAmp, probe } = options;
  const circuit = opAmp === 'ideal' ? withIdealOpAmps(subject.circuit) : subject.circuit;
  const search = fitCircuit({
    circuit,
    ideal: subject.ideal,
    probe: probe ?? subject.probe,
    supply: { ...supply, pairs, ...from },
    boards,
    span: subject.span,
    landmarks: subject.landmarks,
    parts: chosenParts(circuit).map((part) =>
      trim.includes(part.id) ? { ...part, making: 'trimmer' } : part,
    ),
  });
  return { supply, circuit, fit: fitted(search) };
}

function fitSheet(given: Sheet, asked: Asked, options: Options): Found {
  const { opAmp, pairs, trim, boards, from } = options;
  const parts = {
    ...given.parts,
    ...told(asked),
    ...(opAmp === 'ideal' ? { opAmp: { name: 'ideal', model: 'ideal' as const } } : {}),
  };
  const sheet = { ...given, parts };
  const { result } = fitted(fitWay(sheet, { pairs, trim, boards, ...from }));
  if (!result)
    throw new ReedError(
      'range',
      'The sheet has no part whose value is to be chosen: all were put in by hand, or it was never designed.',
    );
  const { resistors, capacitors, inductors } = parts;
  return {
    supply: { resistors, capacitors, inductors },
    circuit: pathCircuit(sheet, 0, 'built'),
    fit: result,
  };
}

/** What the readings of a subject are on one of its circuits. */
function readingsOf(circuit: Circuit, { readings, probe, context, span, landmarks }: Subject) {
  if (readings.length === 0 || !span) return [];
  const reader = new ResponseReader(responseOf(new AcAnalysis(circuit), probe), {
    span: { fromHz: span.fromHz / 10, toHz: span.toHz * 10 },
    landmarks,
    context,
  });
  return readings
    .filter((r) => r.at === undefined)
    .map(({ name, measure, wanted }: Reading) => {
      const read = (() => {
        try {
          return { value: readMeasure(reader, measure).value };
        } catch (error) {
          return { value: null, error: messageOf(error) };
        }
      })();
      return {
        ...(name === undefined ? {} : { name }),
        measure,
        quantity: quantityOfMeasure(measure),
        wanted: wanted ?? null,
        ...read,
        met: wanted && read.value !== null ? meets(wanted, read.value) : null,
      };
    });
}

interface Stock {
  supply: DrawerSupply;
  parts: number;
  bad: BadLine[];
}

/** Values by kind from a table of parts; other parts of it do not matter here. */
function readStock(path: string): Stock {
  let table: string;
  try {
    table = readFileSync(path === '-' ? 0 : path, 'utf8');
  } catch (error) {
    throw new ReedError('document', `The stock “${path}” cannot be read (${messageOf(error)}).`);
  }
  const { good, bad } = readStockTable(stockTable(table));
  const entries = good.map(({ line, words }) => stockEntryOf(words, `line ${line}`));
  const supply = supplyOf(entries);
  if (Object.keys(supply.stock).length === 0)
    throw new ReedError(
      'document',
      `The stock “${path}” names no resistor, capacitor or coil${bad.length > 0 ? `; line ${bad[0].line}: ${bad[0].why}` : ''}`,
    );
  return { supply, parts: good.length, bad };
}

function oneOf<T extends string>(name: string, value: string, among: readonly T[]): T {
  const found = among.find((x) => x === value);
  if (found === undefined) throw new UsageError(`--${name} must be ${among.join(', ')}`);
  return found;
}

function series(name: string, value: string | undefined): SeriesName | 'exact' | undefined {
  return value === undefined ? undefined : oneOf(name, value, [...SERIES_NAMES, 'exact'] as const);
}
