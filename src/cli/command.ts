import { readFileSync, writeFileSync } from 'node:fs';
import { parseArgs, type ParseArgsConfig } from 'node:util';
import { parseJson } from '@/core/document/json';
import { ReedError, messageOf } from '@/core/errors';
import { readCircuitIn, type Circuit } from '@/core/circuit/schema';
import { parseQuantity } from '@/core/quantity/parse';
import type { QuantityKind } from '@/core/quantity/kinds';

/** One subcommand: what it is called with, and what it prints as JSON. */
export interface Command {
  name: string;
  usage: string;
  summary: string;
  run(args: string[]): unknown;
}

/** A result too long for one text: its JSON, piece by piece. */
export class Streamed {
  constructor(readonly pieces: Iterable<string>) {}
}

/** A result that takes longer than a call: what is to be printed when it is there. */
export class Later {
  constructor(readonly result: Promise<unknown>) {}
}

/** A result that tells of faults: it is printed like any, and the command ends as one that was refused. */
export class Faulty {
  constructor(
    readonly result: unknown,
    readonly message: string,
  ) {}
}

/** Bad use of a command: reported with the command's usage. */
export class UsageError extends Error {}

/** Options and positionals, or a usage error in the command's own words. */
export function readArgs<T extends NonNullable<ParseArgsConfig['options']>>(
  args: string[],
  options: T,
  files: number,
) {
  let parsed;
  try {
    parsed = parseArgs({
      args: withNegatives(args, options),
      options,
      allowPositionals: true,
      strict: true,
    });
  } catch (error) {
    throw new UsageError(messageOf(error));
  }
  if (parsed.positionals.length !== files) {
    throw new UsageError(
      files === 1
        ? `one file was expected, ${parsed.positionals.length} were given`
        : `${files} files were expected`,
    );
  }
  return parsed;
}

/** “--at -1” says the same as “--at=-1”: a number below zero is no option. */
function withNegatives(
  args: readonly string[],
  options: NonNullable<ParseArgsConfig['options']>,
): string[] {
  const joined: string[] = [];
  for (let i = 0; i < args.length; i++) {
    const next: string | undefined = args[i + 1];
    const option = args[i].startsWith('--') ? options[args[i].slice(2)] : undefined;
    if (option?.type === 'string' && next !== undefined && /^-[.\d]/.test(next)) {
      joined.push(`${args[i]}=${next}`);
      i++;
    } else joined.push(args[i]);
  }
  return joined;
}

/** A JSON document from a file; "-" reads standard input. */
export const readJson = (path: string): unknown => parseJson(readText(path), path);

/** The text of a file; "-" reads standard input. */
export const readText = (path: string): string => readBytes(path).toString('utf8');

/** The bytes of a file; "-" reads standard input. */
export function readBytes(path: string): Buffer {
  try {
    return readFileSync(path === '-' ? 0 : path);
  } catch (error) {
    const code = (error as { code?: string }).code;
    throw new ReedError(
      'document',
      code === 'ENOENT'
        ? `There is no file “${path}”.`
        : `The file “${path}” cannot be read (${messageOf(error)}).`,
    );
  }
}

/** A circuit from a file: a circuit document, or any document that carries one as `circuit`. */
export const readCircuitFile = (path: string): Circuit => readCircuitIn(readJson(path));

/** @throws ReedError `document` where the file cannot be written */
export function writeOut(path: string, text: string | Uint8Array): void {
  try {
    writeFileSync(path, text);
  } catch (error) {
    throw new ReedError('document', `“${path}” cannot be written: ${messageOf(error)}.`);
  }
}

export function quantityOption(
  name: string,
  text: string | undefined,
  kind: QuantityKind,
): number | undefined {
  if (text === undefined) return undefined;
  try {
    return parseQuantity(text, kind);
  } catch (error) {
    throw new UsageError(`--${name}: ${messageOf(error)}`);
  }
}

/** @throws UsageError for anything but a whole number within the bounds */
export function wholeNumber(name: string, text: string, least: number, most: number): number {
  const number = Number(text);
  if (!Number.isInteger(number) || number < least || number > most)
    throw new UsageError(`--${name} must be a whole number from ${least} to ${most}`);
  return number;
}

export function required<T>(name: string, value: T | undefined): T {
  if (value === undefined) throw new UsageError(`--${name} is missing`);
  return value;
}

/**
 * Typed arrays become plain lists in printed JSON.
 *
 * @throws ReedError `range` for what is no number, which JSON could only call null
 */
export function printable(key: string, value: unknown): unknown {
  if (Number.isNaN(value))
    throw new ReedError('range', `The result “${key}” is no number for this circuit.`);
  return value instanceof Float64Array ? Array.from(value) : value;
}
