import * as z from 'zod';
import { defineDevice } from '../device';
import { finite, net, partBase } from '../part';
import { waveformSchema } from '../waveform';

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('current-source'),
  from: net,
  to: net,
  dcAmps: finite.optional(),
  acAmps: finite.optional(),
  acDegrees: finite.optional(),
  waveform: waveformSchema.optional(),
});

/** The current flows inside the source, out of the net `from` and into the net `to`. */
export const currentSource = defineDevice<z.infer<typeof schema>>({
  kind: 'current-source',
  schema,
  terminals: ({ from, to }) => ({ from, to }),
  conducts: () => [],
  stamp(part, s) {
    const term = {
      dc: part.dcAmps ? s.parameter('dcAmps', part.dcAmps) : undefined,
      acMagnitude: part.acAmps ?? 0,
      acDegrees: part.acDegrees ?? 0,
      waveform: part.waveform,
    };
    s.source({ ...term, row: s.net(part.from), sign: -1 });
    s.source({ ...term, row: s.net(part.to), sign: 1 });
  },
});
