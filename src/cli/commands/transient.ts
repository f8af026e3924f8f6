import {
  transient as transientAnalysis,
  type TransientResult,
} from '@/core/analysis/transient/transient';
import {
  quantityOption,
  readArgs,
  readCircuitFile,
  required,
  Streamed,
  type Command,
} from '../command';
import { probeList } from './ac';

export const transient: Command = {
  name: 'transient',
  usage: 'FILE --probe net[,net…] --until S [--step S]',
  summary: 'voltages over time from the operating point; without --step the grid follows the error',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { probe: { type: 'string' }, until: { type: 'string' }, step: { type: 'string' } },
      1,
    );
    const probes = probeList(values.probe);
    const untilSeconds = required('until', quantityOption('until', values.until, 'seconds'));
    const stepSeconds = quantityOption('step', values.step, 'seconds');
    const result = transientAnalysis(readCircuitFile(positionals[0]), {
      untilSeconds,
      stepSeconds,
      probes,
    });
    return new Streamed(pieces(probes[0], result));
  },
};

/** Numbers written at a time. */
const PIECE = 20_000;

/** {probe, timesSeconds, volts, probes}, in pieces: millions of points make no one text. */
function* pieces(probe: string, { timesSeconds, probes }: TransientResult): Generator<string> {
  yield `{"probe":${JSON.stringify(probe)},"timesSeconds":`;
  yield* list(timesSeconds);
  yield ',"volts":';
  yield* list(probes[probe]);
  yield ',"probes":{';
  let first = true;
  for (const [net, volts] of Object.entries(probes)) {
    yield `${first ? '' : ','}${JSON.stringify(net)}:`;
    yield* list(volts);
    first = false;
  }
  yield '}}';
}

function* list(values: Float64Array): Generator<string> {
  yield '[';
  for (let k = 0; k < values.length; k += PIECE) {
    const piece = values.subarray(k, k + PIECE);
    yield `${k > 0 ? ',' : ''}${piece.join(',')}`;
  }
  yield ']';
}
