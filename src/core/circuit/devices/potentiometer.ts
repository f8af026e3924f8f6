import * as z from 'zod';
import { defineDevice } from '../device';
import { finite, net, notNegative, partBase, positive } from '../part';
import { admittance, type Law } from '../stamper';
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

/**
 * Part of the track between `a` and the wiper, with its slopes by turn and mismatch: linear, or the
 * two-slope approximation makers use (10 % at half turn).
 */
export function trackPart({
  taper,
  turn,
  mismatch,
}: Pick<Potentiometer, 'taper' | 'turn' | 'mismatch'>): {
  part: number;
  byTurn: number;
  byMismatch: number;
} {
  const audio = (t: number) => (t < 0.5 ? [0.2 * t, 0.2] : [0.1 + 1.8 * (t - 0.5), 1.8]);
  const reverse = (t: number) => [1 - audio(1 - t)[0], audio(1 - t)[1]];
  const law = { linear: (t: number) => [t, 1], audio, 'reverse-audio': reverse }[taper];
  const [bare, slope] = law(turn);
  const ahead = bare + mismatch * bare * (1 - bare) * 4;
  // Against its stop it moves no further.
  if (ahead < 0 || ahead > 1) return { part: ahead < 0 ? 0 : 1, byTurn: 0, byMismatch: 0 };
  const byTurn = slope * (1 + mismatch * 4 * (1 - 2 * bare));
  return { part: ahead, byTurn, byMismatch: 4 * bare * (1 - bare) };
}

/** Never quite zero, even without an end resistance: a short is a wire, not a resistor. */
const LEAST = 1e-9;

const VALUES = ['ohms', 'turn', 'endOhms', 'mismatch'] as const;

/** One side of the wiper: its resistance, and its slopes by the values of the part. */
interface Side {
  ohms: number;
  by: Partial<Record<(typeof VALUES)[number], number>>;
}

/** Both sides of the wiper: a part of the track, or what is left of it at a stop. */
function sidesOf(part: Potentiometer): { toA: Side; toB: Side } {
  const { ohms, endOhms } = part;
  const { part: ahead, byTurn, byMismatch } = trackPart(part);
  const least = Math.max(endOhms, ohms * LEAST);
  const side = (rest: number, sign: 1 | -1): Side => {
    if (ohms * rest > least)
      return {
        ohms: ohms * rest,
        by: { ohms: rest, turn: sign * ohms * byTurn, mismatch: sign * ohms * byMismatch },
      };
    return { ohms: least, by: endOhms > ohms * LEAST ? { endOhms: 1 } : { ohms: LEAST } };
  };
  return { toA: side(ahead, 1), toB: side(1 - ahead, -1) };
}

/** A track with a wiper: two resistors that share it. Join wiper and one end for a rheostat. */
export const potentiometer = defineDevice<Potentiometer>({
  kind: 'potentiometer',
  schema,
  terminals: ({ a, wiper, b }) => ({ a, wiper, b }),
  conducts: ({ a, wiper, b }) => [[a, wiper, b]],
  passive: true,
  takes(part, volts) {
    const { toA, toB } = sidesOf(part);
    const [a, wiper, b] = [volts(part.a), volts(part.wiper), volts(part.b)];
    return (a - wiper) ** 2 / toA.ohms + (wiper - b) ** 2 / toB.ohms;
  },
  stamp(part, s) {
    const [a, wiper, b] = [s.net(part.a), s.net(part.wiper), s.net(part.b)];
    const own = VALUES.map((name) => s.parameter(name, part[name]));
    const side = (name: 'toA' | 'toB'): Law => {
      return ([ohms, turn, endOhms, mismatch]) => {
        const found = sidesOf({ ...part, ohms, turn, endOhms, mismatch })[name];
        return { value: found.ohms, slopes: VALUES.map((v) => found.by[v] ?? 0) };
      };
    };
    const toA = s.derived('ohmsToA', own, side('toA'));
    const toB = s.derived('ohmsToB', own, side('toB'));
    admittance(s, 'resistive', a, wiper, [toA, -1]);
    admittance(s, 'resistive', wiper, b, [toB, -1]);
    thermalNoise(s, a, wiper, toA);
    thermalNoise(s, wiper, b, toB);
  },
});
