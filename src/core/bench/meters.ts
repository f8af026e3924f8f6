import type { Take } from '@/core/library/take';
import type { Circuit } from '@/core/circuit/schema';
import { levelsAt } from '@/core/response/levels-at';

/** What is connected to a net in order to measure it. */
export type Meter = NonNullable<Take['meter']>;

/** What a board is swept with through a computer’s audio. */
export const SOUND_CARD: Meter = { name: 'sound card’s input', ohms: 20e3, farads: 180e-12 };

/** What people have on their benches, leads included. */
export const METERS: readonly Meter[] = [
  { name: '10 MΩ divider probe', ohms: 10e6, farads: 15e-12 },
  { name: '1 MΩ input and a metre of cable', ohms: 1e6, farads: 130e-12 },
  SOUND_CARD,
];

/** The circuit with a meter at a net. */
export const withMeter = (circuit: Circuit, net: string, { ohms, farads }: Meter): Circuit => ({
  ...circuit,
  parts: [
    ...circuit.parts,
    { id: 'meter.ohms', kind: 'resistor', a: net, b: circuit.ground, ohms },
    { id: 'meter.farads', kind: 'capacitor', a: net, b: circuit.ground, farads },
  ],
});

/** By meter, the most that connecting it changes of the level at a net, dB, and where. */
export function whatMetersDo(
  circuit: Circuit,
  net: string,
  frequenciesHz: Float64Array,
): { meter: Meter; db: number; atHz: number }[] {
  const levels = (of: Circuit) => levelsAt(of, net, frequenciesHz);
  const bare = levels(circuit);
  return METERS.map((meter) => {
    const off = levels(withMeter(circuit, net, meter)).map((db, k) => db - bare[k]);
    const worst = off.reduce((a, v, k) => (Math.abs(v) > Math.abs(off[a]) ? k : a), 0);
    return { meter, db: off[worst], atHz: frequenciesHz[worst] };
  });
}
