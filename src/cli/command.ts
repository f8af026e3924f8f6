import { readFileSync, writeFileSync } from 'node:fs';
import { parseArgs, type ParseArgsConfig } from 'node:util';
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
    parsed = parseArgs({ args, options, allowPositionals: true, strict: true });
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

/** A JSON document from a file; "-" reads standard input. */
export function readJson(path: string): unknown {
  let text: string;
  try {
    text = readFileSync(path === '-' ? 0 : path, 'utf8');
  } catch (error) {
    const code = (error as { code?: string }).code;
    throw new ReedError(
      'document',
      code === 'ENOENT'
        ? `There is no file “${path}”.`
        : `The file “${path}” cannot be read (${messageOf(error)}).`,
    );
  }
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new ReedError('document', `“${path}” is not JSON: ${messageOf(error)}.`);
  }
}

/** A circuit from a file: a circuit document, or any document that carries one as `circuit`. */
export const readCircuitFile = (path: string): Circuit => readCircuitIn(readJson(path));

/** @throws ReedError `document` where the file cannot be written */
export function writeOut(path: string, text: string): void {
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

export function required<T>(name: string, value: T | undefined): T {
  if (value === undefined) throw new UsageError(`--${name} is missing`);
  return value;
}

/** Typed arrays become plain lists in printed JSON. */
export function printable(_key: string, value: unknown): unknown {
  return value instanceof Float64Array ? Array.from(value) : value;
}
