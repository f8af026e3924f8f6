import { writeSync } from 'node:fs';
import { main } from './main';

/** All of a text, before anything else is done: a result may be larger than any buffer. */
function writeAll(file: number, text: string): void {
  const bytes = Buffer.from(text, 'utf8');
  for (let done = 0; done < bytes.length;) {
    try {
      done += writeSync(file, bytes, done);
    } catch (error) {
      const { code } = error as { code?: string };
      // Nobody reads on: there is nobody to tell either.
      if (code === 'EPIPE') process.exit(0);
      if (code !== 'EAGAIN') throw error;
      // The reader is behind; give it a moment.
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 5);
    }
  }
}

process.exitCode = main(process.argv.slice(2), {
  out: (text) => writeAll(1, text),
  error: (text) => writeAll(2, `${text}\n`),
  later: (code) => void code.then((c) => (process.exitCode = c)),
});
