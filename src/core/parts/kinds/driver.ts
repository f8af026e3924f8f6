import * as z from 'zod';
import { unitModelFields } from '@/core/speaker/document';
import { figuresFields } from '@/core/speaker/figures';
import { terminalParts } from '@/core/speaker/unit';
import type { PartKind } from '../part-kind';
import { twoEnded } from '../two-ended';

const { fsHz, qms, qes, reOhms, leHenries } = figuresFields;
export const driverModel = z
  .strictObject(unitModelFields)
  .refine(
    (m) =>
      m.measured?.impedance !== undefined ||
      z.object({ fsHz, qms, qes, reOhms, leHenries }).safeParse(m).success,
    'needs fsHz, qms, qes, reOhms and leHenries, or a measured impedance',
  );
export type DriverModel = z.infer<typeof driverModel>;

/** A loudspeaker as its terminals see it, in its mounting where one is told. */
export const driver: PartKind = {
  kind: 'driver',
  noun: 'loudspeaker',
  article: 'a',
  letter: 'Y',
  symbol: twoEnded(
    { half: 0.95, from: 0.9, to: 3.1 },
    [
      { d: 'M0 0H28M52 0H80' },
      { d: 'M28 -6H52V8H28Z', fill: 'paper' },
      { d: 'M28 -6L20 -19H60L52 -6Z', fill: 'paper' },
    ],
    ['plus', 'minus'],
  ),
  quantities: [],
  model: driverModel,
  models: [
    {
      name: 'small woofer, 8 Ω',
      model: {
        fsHz: 48,
        qms: 3.5,
        qes: 0.5,
        reOhms: 6.2,
        leHenries: 0.5e-3,
        directivity: 'even',
      },
    },
    {
      name: 'small tweeter, 8 Ω',
      model: {
        fsHz: 900,
        qms: 3,
        qes: 1.2,
        reOhms: 5.8,
        leHenries: 0.05e-3,
        directivity: 'even',
      },
    },
  ],
  series: null,
  price: 25,
  tolerance: 0,
  become: ({ id, nets: { plus, minus }, model: its }) =>
    terminalParts(its as DriverModel, { id, plus, minus }),
  // A circuit file has its parts one by one.
  take: () => undefined,
};
