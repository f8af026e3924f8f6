import type { z } from 'zod';
import { jfetModel } from '@/core/circuit/devices/jfet';
import type { PartKind } from '../part-kind';
import { threeEnded } from '../three-ended';

type Model = z.infer<typeof jfetModel>;
type Polarity = Model['polarity'];

const jfetOf = (polarity: Polarity): PartKind => ({
  kind: `${polarity}-jfet`,
  noun: `${polarity}-channel JFET`,
  article: polarity === 'n' ? 'an' : 'a',
  letter: 'J',
  symbol: threeEnded(
    ['gate', 'drain', 'source'],
    [
      { d: 'M0 0H22M22 -16V16M22 -10H40V-40M22 10H40V40' },
      { d: polarity === 'n' ? 'M21 0L12 -4V4Z' : 'M10 0L19 -4V4Z', fill: 'ink' },
    ],
  ),
  quantities: [],
  model: jfetModel.refine((m) => m.polarity === polarity, {
    error: `must be of a ${polarity}-channel JFET`,
    path: ['polarity'],
  }),
  models: [
    {
      name: 'small, 3 mA',
      model: {
        polarity,
        saturatedDrainAmps: 3e-3,
        pinchOffVolts: 1.5,
        lambdaPerVolt: 0.02,
        gateSaturationAmps: 1e-14,
        gateSourceFarads: 4e-12,
        gateDrainFarads: 2e-12,
      },
    },
  ],
  across: ['drain', 'source'],
  inLine: 'gate',
  series: null,
  price: 0.4,
  tolerance: 0,
  become: ({ id, nets: { gate, drain, source }, model }) => [
    { id, kind: 'jfet', gate, drain, source, model: model as Model },
  ],
  take: (part) =>
    part.kind === 'jfet' && part.model.polarity === polarity
      ? {
          nets: { gate: part.gate, drain: part.drain, source: part.source },
          values: {},
          model: part.model,
        }
      : undefined,
});

export const nJfet = jfetOf('n');
export const pJfet = jfetOf('p');
