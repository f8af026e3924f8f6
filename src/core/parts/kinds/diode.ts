import { diodeModel } from '@/core/circuit/devices/diode';
import type { PartKind, PartSymbol } from '../part-kind';
import { twoEnded } from '../two-ended';
import type { z } from 'zod';

type Model = z.infer<typeof diodeModel>;

const ARROWS =
  'M41 -12l6 -6.5M47 -18.5l-5 1.4M47 -18.5l-0.9 5M50 -11l6 -6.5M56 -17.5l-5 1.4M56 -17.5l-0.9 5';

const symbol = (light: boolean): PartSymbol => ({
  ...twoEnded(
    { half: light ? 0.95 : 0.55, from: 1.45, to: light ? 2.9 : 2.55 },
    [
      { d: 'M0 0H30M50 0H80M50 -10V10' },
      { d: 'M30 -10L50 0L30 10Z', fill: 'paper' },
      ...(light ? [{ d: ARROWS }] : []),
    ],
    ['anode', 'cathode'],
  ),
});

type Fixed = Pick<PartKind, 'kind' | 'noun' | 'article' | 'models' | 'price'>;

/** Whether a model is that of a light-emitting diode: they open at far more than half a volt. */
const emitsLight = ({ saturationAmps }: Model) => saturationAmps < 1e-15;

const diodeOf = (fixed: Fixed, light: boolean): PartKind => ({
  ...fixed,
  letter: 'D',
  symbol: symbol(light),
  quantities: [],
  model: diodeModel,
  series: null,
  tolerance: 0,
  become: ({ id, nets: { anode, cathode }, model }) => [
    { id, kind: 'diode', anode, cathode, model: model as Model },
  ],
  take: (part) =>
    part.kind === 'diode' && emitsLight(part.model) === light
      ? { nets: { anode: part.anode, cathode: part.cathode }, values: {}, model: part.model }
      : undefined,
});

const CHARGE = { junctionFarads: 2e-12, transitSeconds: 5e-9 };

export const diode = diodeOf(
  {
    kind: 'diode',
    noun: 'diode',
    article: 'a',
    price: 0.05,
    models: [
      {
        name: 'small silicon',
        model: { saturationAmps: 2.5e-9, emissionCoefficient: 1.75, ...CHARGE },
      },
      {
        name: 'germanium',
        model: {
          saturationAmps: 2e-7,
          emissionCoefficient: 1.2,
          junctionFarads: 1e-12,
          transitSeconds: 0,
        },
      },
      {
        name: 'metal and silicon',
        model: {
          saturationAmps: 3e-8,
          emissionCoefficient: 1.05,
          junctionFarads: 2e-12,
          transitSeconds: 0,
        },
      },
    ],
  },
  false,
);

export const lightEmittingDiode = diodeOf(
  {
    kind: 'light-emitting-diode',
    noun: 'light-emitting diode',
    article: 'a',
    price: 0.1,
    models: [
      {
        name: 'red, 1.7 V',
        model: {
          saturationAmps: 1e-18,
          emissionCoefficient: 1.8,
          junctionFarads: 25e-12,
          transitSeconds: 0,
        },
      },
      {
        name: 'green, 2 V',
        model: {
          saturationAmps: 2e-20,
          emissionCoefficient: 1.9,
          junctionFarads: 25e-12,
          transitSeconds: 0,
        },
      },
    ],
  },
  true,
);
