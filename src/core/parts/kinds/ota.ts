import * as z from 'zod';
import { positive } from '@/core/circuit/part';
import type { PartKind } from '../part-kind';
import { supplyPin, triangle } from '../triangle';

const model = z.strictObject({
  /** Bias current a volt at the bias pin, where that is drawn. */
  biasSiemens: positive,
  diodeAmps: positive.optional(),
});
type Model = z.infer<typeof model>;

export const ota: PartKind = {
  kind: 'ota',
  noun: 'OTA',
  article: 'an',
  letter: 'G',
  symbol: triangle({ further: [supplyPin('bias', 'below')], sign: 'i' }),
  quantities: [{ name: 'biasAmps', label: 'Bias current', quantity: 'amps', usual: 0.5e-3 }],
  model,
  models: [
    { name: 'plain, bias by 20 kΩ', model: { biasSiemens: 50e-6 } },
    { name: 'linearised, bias by 20 kΩ', model: { biasSiemens: 50e-6, diodeAmps: 1e-3 } },
  ],
  across: ['inMinus', 'out'],
  inLine: 'out',
  series: null,
  price: 1.1,
  tolerance: 0.1,
  become({ id, nets: { inPlus, inMinus, out, bias }, values: { biasAmps }, model: its }) {
    const { biasSiemens, diodeAmps } = its as Model;
    return [
      {
        id,
        kind: 'ota',
        inPlus,
        inMinus,
        out,
        ...(bias === undefined ? { biasAmps } : { bias, biasSiemens }),
        ...(diodeAmps === undefined ? {} : { diodeAmps }),
      },
    ];
  },
  take: (part) => {
    if (part.kind !== 'ota') return undefined;
    const { inPlus, inMinus, out, bias, biasAmps, biasSiemens, diodeAmps } = part;
    return {
      nets: { inPlus, inMinus, out, ...(bias === undefined ? {} : { bias }) },
      values: { biasAmps: biasAmps ?? 0.5e-3 },
      model: {
        biasSiemens: biasSiemens ?? 50e-6,
        ...(diodeAmps === undefined ? {} : { diodeAmps }),
      },
    };
  },
};
