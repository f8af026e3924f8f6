import { z } from 'zod';
import { defineDevice } from '../device';
import { finite, net, notNegative, partBase, positive } from '../part';
import { admittance } from '../stamper';
import { thermalNoise } from '../thermal-noise';

export const TAPERS = ['linear', 'audio', 'reverse-audio'] as const;

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('potentiometer'),
  a: net,
  wiper: net,
  b: net,
  ohms: positive,
  taper: z.enum(TAPERS).default('linear'),
  /** 0 puts the wiper at `a`, 1 at `b`. */
  turn: finite.min(0, 'must lie between 0 and 1').max(1, 'must lie between 0 and 1'),
  /** Resistance left between wiper and track end at the stops. */
  endOhms: notNegative.default(1),
  /** How far this section of a ganged pair runs ahead of the shaft, as a part of the track. */
  mismatch: finite.min(-0.2).max(0.2).default(0),
});

type Potentiometer = z.infer<typeof schema>;

/** Part of the track between `a` and the wiper: linear, or the two-slope approximation makers use (10 % at half turn). */
export function trackPart({
  taper,
  turn,
  mismatch,
}: Pick<Potentiometer, 'taper' | 'turn' | 'mismatch'>): number {
  const audio = (t: number) => (t < 0.5 ? 0.2 * t : 0.1 + 1.8 * (t - 0.5));
  const bare = taper === 'linear' ? turn : taper === 'audio' ? audio(turn) : 1 - audio(1 - turn);
  return Math.min(1, Math.max(0, bare + mismatch * bare * (1 - bare) * 4));
}

/** A track with a wiper: two resistors that share it. Join wiper and one end for a rheostat. */
export const potentiometer = defineDevice<Potentiometer>({
  kind: 'potentiometer',
  schema,
  terminals: ({ a, wiper, b }) => ({ a, wiper, b }),
  conducts: ({ a, wiper, b }) => [[a, wiper, b]],
  stamp(part, s) {
    const ahead = trackPart(part);
    const [a, wiper, b] = [s.net(part.a), s.net(part.wiper), s.net(part.b)];
    // Never quite zero, even without an end resistance: a short is a wire, not a resistor.
    const least = Math.max(part.endOhms, part.ohms * 1e-9);
    const toA = Math.max(least, part.ohms * ahead);
    const toB = Math.max(least, part.ohms * (1 - ahead));
    admittance(s, 'resistive', a, wiper, [s.parameter('ohmsToA', toA), -1]);
    admittance(s, 'resistive', wiper, b, [s.parameter('ohmsToB', toB), -1]);
    thermalNoise(s, a, wiper, toA);
    thermalNoise(s, wiper, b, toB);
  },
});
