import * as z from 'zod';
import { defineDevice } from '../device';
import { finite, net, partBase } from '../part';
import { branch } from '../stamper';
import { waveformSchema } from '../waveform';

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('voltage-source'),
  plus: net,
  minus: net,
  dcVolts: finite.optional(),
  acVolts: finite.optional(),
  acDegrees: finite.optional(),
  waveform: waveformSchema.optional(),
});

export const voltageSource = defineDevice<z.infer<typeof schema>>({
  kind: 'voltage-source',
  schema,
  terminals: ({ plus, minus }) => ({ plus, minus }),
  conducts: ({ plus, minus }) => [[plus, minus]],
  fixesVoltage: 'always',
  holds: ({ plus, minus }) => [plus, minus],
  stamp(part, s) {
    const i = s.unknown('current');
    branch(s, s.net(part.plus), s.net(part.minus), i);
    s.source({
      row: i,
      sign: 1,
      dc: part.dcVolts ? s.parameter('dcVolts', part.dcVolts) : undefined,
      acMagnitude: part.acVolts ?? 0,
      acDegrees: part.acDegrees ?? 0,
      waveform: part.waveform,
    });
  },
});
