import * as z from 'zod';
import { opAmpModelSchema } from '@/core/circuit/devices/op-amp-model';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import type { PartKind } from '../part-kind';
import { supplyPin, triangle } from '../triangle';

const model = z.union([z.literal('ideal'), opAmpModelSchema]);
type Model = z.infer<typeof model>;

export const opAmp: PartKind = {
  kind: 'op-amp',
  noun: 'op-amp',
  article: 'an',
  letter: 'A',
  symbol: triangle({
    further: [supplyPin('supplyPlus', 'above'), supplyPin('supplyMinus', 'below')],
  }),
  quantities: [],
  model,
  models: OP_AMPS,
  across: ['inMinus', 'out'],
  inLine: 'out',
  series: null,
  price: 0.7,
  inDesigns: true,
  tolerance: 0,
  become: ({ id, nets, model: its }) => [
    {
      id,
      kind: 'op-amp',
      ...(nets as Record<'inPlus' | 'inMinus' | 'out', string>),
      model: its as Model,
    },
  ],
  take: (part) => {
    if (part.kind !== 'op-amp') return undefined;
    const { inPlus, inMinus, out, supplyPlus, supplyMinus, model: its } = part;
    return {
      nets: {
        inPlus,
        inMinus,
        out,
        ...(supplyPlus === undefined ? {} : { supplyPlus }),
        ...(supplyMinus === undefined ? {} : { supplyMinus }),
      },
      values: {},
      model: its,
    };
  },
};
