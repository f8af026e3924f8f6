import { main } from './main';

process.exitCode = main(process.argv.slice(2), {
  out: (text) => process.stdout.write(`${text}\n`),
  error: (text) => process.stderr.write(`${text}\n`),
});
