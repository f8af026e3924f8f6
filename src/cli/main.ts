import { ReedError } from '@/core/errors';
import { printable, UsageError } from './command';
import { COMMANDS } from './commands';

export interface Output {
  out(text: string): void;
  error(text: string): void;
}

/**
 * Run the command line.
 *
 * @returns the exit code: 0, or 2 with one line on the error output for anything the caller can mend
 */
export function main(argv: readonly string[], output: Output): number {
  const [name, ...args] = argv;
  if (name === undefined || name === 'help' || name === '--help' || name === '-h') {
    output.out(usage());
    return 0;
  }
  const command = COMMANDS.find((c) => c.name === name);
  if (!command) {
    output.error(
      `reed: there is no command “${name}”; there are ${COMMANDS.map((c) => c.name).join(', ')}.`,
    );
    return 2;
  }
  try {
    output.out(JSON.stringify(command.run(args), printable));
    return 0;
  } catch (error) {
    if (error instanceof UsageError) {
      output.error(`reed ${name}: ${error.message}. Usage: reed ${name} ${command.usage}`);
      return 2;
    }
    if (error instanceof ReedError) {
      output.error(`reed ${name}: ${error.message.replace(/\s*\n\s*/g, ' ')}`);
      return 2;
    }
    throw error;
  }
}

function usage(): string {
  const lines = COMMANDS.map((c) => `  reed ${c.name} ${c.usage}\n      ${c.summary}`);
  return ['Every command prints JSON. FILE may be “-” for standard input.', '', ...lines].join(
    '\n',
  );
}
