import type { z } from 'zod';
import { transistorModel } from '@/core/circuit/devices/transistor';
import type { NamedModel, PartKind } from '../part-kind';
import { threeEnded } from '../three-ended';

type Model = z.infer<typeof transistorModel>;
type Polarity = Model['polarity'];

const OUTWARD = 'M38 16.8L29.1 16L33.3 9.2Z';
const INWARD = 'M24 8.2L32.9 9L28.7 15.8Z';

const modelOf = (polarity: Polarity, change: Partial<Model>): Model => ({
  polarity,
  saturationAmps: 1e-14,
  betaForward: 200,
  betaReverse: 4,
  earlyVolts: 80,
  baseEmitterFarads: 8e-12,
  baseCollectorFarads: 4e-12,
  transitSeconds: 0.4e-9,
  ...change,
});

const offered = (polarity: Polarity): NamedModel[] => [
  { name: 'small silicon', model: modelOf(polarity, {}) },
  { name: 'small silicon, high gain', model: modelOf(polarity, { betaForward: 500 }) },
  {
    name: 'germanium',
    model: modelOf(polarity, {
      saturationAmps: 1e-7,
      betaForward: 80,
      earlyVolts: 40,
      baseEmitterFarads: 40e-12,
      baseCollectorFarads: 20e-12,
    }),
  },
];

const transistorOf = (polarity: Polarity): PartKind => ({
  kind: `${polarity}-transistor`,
  noun: `${polarity} transistor`,
  article: polarity === 'npn' ? 'an' : 'a',
  letter: 'Q',
  symbol: threeEnded(
    ['base', 'collector', 'emitter'],
    [
      { d: 'M0 0H22M22 -14V14M22 -7L40 -18V-40M22 7L40 18V40' },
      { d: polarity === 'npn' ? OUTWARD : INWARD, fill: 'ink' },
    ],
  ),
  quantities: [],
  model: transistorModel.refine((m) => m.polarity === polarity, {
    error: `must be of an ${polarity} transistor`,
    path: ['polarity'],
  }),
  models: offered(polarity),
  across: ['collector', 'emitter'],
  inLine: 'base',
  series: null,
  price: 0.1,
  tolerance: 0,
  become: ({ id, nets: { base, collector, emitter }, model }) => [
    { id, kind: 'transistor', base, collector, emitter, model: model as Model },
  ],
  take: (part) =>
    part.kind === 'transistor' && part.model.polarity === polarity
      ? {
          nets: { base: part.base, collector: part.collector, emitter: part.emitter },
          values: {},
          model: part.model,
        }
      : undefined,
});

export const npnTransistor = transistorOf('npn');
export const pnpTransistor = transistorOf('pnp');
