import { messageOf, ReedError } from '@/core/errors';
import { cut, quoted } from '@/core/text';
import { Faulty, Later, printable, Streamed, UsageError } from './command';
import { COMMANDS } from './commands';

export interface Output {
  /** Text as it is. */
  out(text: string): void;
  /** One line. */
  error(text: string): void;
  /** Told of a result that is still to come, with its exit code. */
  later?(code: Promise<number>): void;
}

/**
 * Run the command line.
 *
 * @returns the exit code: 0; 2 with one line on the error output for anything the caller can mend; 1
 * with one line for a fault of the program
 */
export function main(argv: readonly string[], output: Output): number {
  const [name, ...args] = argv;
  if (name === undefined || name === 'help' || name === '--help' || name === '-h') {
    output.out(`${usage()}\n`);
    return 0;
  }
  const command = COMMANDS.find((c) => c.name === name);
  if (!command) {
    output.error(
      `reed: there is no command ${quoted(name)}; there are ${COMMANDS.map((c) => c.name).join(', ')}.`,
    );
    return 2;
  }
  const failed = (error: unknown): number => {
    const usage = error instanceof UsageError ? ` Usage: reed ${name} ${command.usage}` : '';
    output.error(`reed ${name}: ${oneLine(messageOf(error))}.${usage}`);
    return error instanceof UsageError || error instanceof ReedError ? 2 : 1;
  };
  const printed = (result: unknown): number => {
    if (result instanceof Streamed) for (const piece of result.pieces) output.out(piece);
    else {
      const told = result instanceof Faulty ? result.result : result;
      output.out(JSON.stringify(told, printable));
    }
    output.out('\n');
    if (!(result instanceof Faulty)) return 0;
    output.error(`reed ${name}: ${oneLine(result.message)}.`);
    return 2;
  };
  try {
    const result = command.run(args);
    if (!(result instanceof Later)) return printed(result);
    output.later?.(result.result.then(printed).catch(failed));
    return 0;
  } catch (error) {
    return failed(error);
  }
}

/** Longest message, and longest name that it repeats. */
const LONGEST = 600;

/** A message on one line; names of somebody's own making are cut. */
function oneLine(message: string): string {
  const line = message
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/“([^”]{81,})”/g, (_, name: string) => quoted(name))
    .replace(/\.$/, '');
  return `${cut(line, LONGEST)}${line.length > LONGEST ? '…' : ''}`;
}

function usage(): string {
  const lines = COMMANDS.map((c) => `  reed ${c.name} ${c.usage}\n      ${c.summary}`);
  return ['Every command prints JSON. FILE may be “-” for standard input.', '', ...lines].join(
    '\n',
  );
}
