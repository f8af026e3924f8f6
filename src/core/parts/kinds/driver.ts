import * as z from 'zod';
import { between, within } from '@/core/quantity/bounds';
import type { PartKind } from '../part-kind';
import { twoEnded } from '../two-ended';

const model = z.strictObject({
  /** Resistance and inductance of the voice coil. */
  ohms: within('ohms'),
  henries: within('henries'),
  /** Resonance in free air, and its Q by mechanical and by electrical losses. */
  resonanceHz: within('hertz'),
  mechanicalQ: between(0.01, 1000),
  electricalQ: between(0.01, 1000),
});
type Model = z.infer<typeof model>;

/**
 * A loudspeaker as its terminals see it in free air: the voice coil, and what moves as a resonant
 * circuit in a row with it. With w = 2 pi fs: C = Qes/(w Re), L = Re/(w Qes), R = Re Qms/Qes
 * (R. H. Small, "Direct-Radiator Loudspeaker System Analysis", J. Audio Eng. Soc. 20, 1972).
 */
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
  model,
  models: [
    {
      name: 'small woofer, 8 Ω',
      model: { ohms: 6.2, henries: 0.5e-3, resonanceHz: 48, mechanicalQ: 3.5, electricalQ: 0.5 },
    },
    {
      name: 'small tweeter, 8 Ω',
      model: { ohms: 5.8, henries: 0.05e-3, resonanceHz: 900, mechanicalQ: 3, electricalQ: 1.2 },
    },
  ],
  series: null,
  price: 25,
  tolerance: 0,
  become({ id, nets: { plus, minus }, model: its }) {
    const { ohms, henries, resonanceHz, mechanicalQ, electricalQ } = its as Model;
    const w = 2 * Math.PI * resonanceHz;
    const [coil, moving] = [`${id}.coil`, `${id}.moving`];
    return [
      { id: `${id}.re`, kind: 'resistor', a: plus, b: coil, ohms },
      { id: `${id}.le`, kind: 'inductor', a: coil, b: moving, henries },
      {
        id: `${id}.mass`,
        kind: 'capacitor',
        a: moving,
        b: minus,
        farads: electricalQ / (w * ohms),
      },
      {
        id: `${id}.give`,
        kind: 'inductor',
        a: moving,
        b: minus,
        henries: ohms / (w * electricalQ),
      },
      {
        id: `${id}.loss`,
        kind: 'resistor',
        a: moving,
        b: minus,
        ohms: (ohms * mechanicalQ) / electricalQ,
      },
    ];
  },
  // A circuit file has its parts one by one.
  take: () => undefined,
};
