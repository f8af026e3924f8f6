import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { messageOf, ReedError } from '@/core/errors';
import { readWav, wavOf } from '@/core/formats/wav';
import { render as renderCircuit, WAVES, type Wave } from '@/core/synth/render';
import {
  quantityOption,
  readArgs,
  readCircuitFile,
  required,
  UsageError,
  wholeNumber,
  writeOut,
  type Command,
} from '../command';

const text = { type: 'string' } as const;

export const render: Command = {
  name: 'render',
  usage: `FILE --probe net --source ID --wave ${WAVES.join('|')}|FILE.wav --hz F --volts V --seconds S --rate N [--oversample N] --out FILE.wav`,
  summary: 'the solved circuit heard: volts of a net as a WAV file of 32-bit numbers',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      {
        ...{ probe: text, source: text, wave: text, hz: text, volts: text },
        ...{ seconds: text, rate: text, oversample: text, out: text },
      },
      1,
    );
    const circuit = readCircuitFile(positionals[0]);
    const wave = waveOf(required('wave', values.wave));
    const pitched = typeof wave === 'string' && wave !== 'noise';
    const hz = quantityOption('hz', values.hz, 'hertz');
    const rate = wholeNumber('rate', required('rate', values.rate), 1000, 768_000);
    const oversample = wholeNumber('oversample', values.oversample ?? '1', 1, 64);
    const out = required('out', values.out);
    const request = {
      probe: required('probe', values.probe),
      source: required('source', values.source),
      wave,
      hz: pitched ? required('hz', hz) : 1,
      volts: required('volts', quantityOption('volts', values.volts, 'volts')),
      seconds: required('seconds', quantityOption('seconds', values.seconds, 'seconds')),
      rate,
      oversample,
    };
    if (!(request.hz > 0)) throw new UsageError('--hz must be above zero');
    const began = performance.now();
    const samples = renderCircuit(circuit, request);
    const computeSeconds = (performance.now() - began) / 1000;
    writeOut(out, wavOf(samples, rate));
    const seconds = samples.length / rate;
    return {
      out,
      samples: samples.length,
      seconds,
      rate,
      oversample,
      peakVolts: samples.reduce((most, v) => Math.max(most, Math.abs(v)), 0),
      rmsVolts: Math.sqrt(samples.reduce((sum, v) => sum + v * v, 0) / samples.length),
      computeSeconds,
      /** Seconds of sound for each second of work. */
      realTimeFactor: seconds / computeSeconds,
    };
  },
};

function waveOf(name: string) {
  if ((WAVES as readonly string[]).includes(name)) return name as Wave;
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(name);
  } catch (error) {
    if ((error as { code?: string }).code !== 'ENOENT')
      throw new ReedError('document', messageOf(error));
    throw new UsageError(
      `--wave is ${name}: it is none of ${WAVES.join(', ')}, and there is no such file`,
    );
  }
  return readWav(bytes, basename(name));
}
