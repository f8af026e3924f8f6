import { emptyTrace, type ComplexTrace } from '@/core/analysis/ac/complex';
import type { Unit } from '@/core/speaker/document';
import type { Electrical, SolvedSpeaker } from '@/core/speaker/solved-speaker';
import { impedanceAt, remembered, type PreparedUnit } from '@/core/speaker/unit';
import { isActive } from './active';
import type { CrossoverDesign } from './crossover-design';

/** What one amplifier is loaded with. */
export interface AmplifierLoad {
  /** The way that it drives; absent of one that drives all ways. */
  way?: string;
  ohms: ComplexTrace;
}

/** What the amplifiers of a crossover are loaded with: one for all, or each with its driver. */
export function amplifierLoads(
  { ways }: Pick<CrossoverDesign, 'ways'>,
  speaker: SolvedSpeaker,
  electrical: Electrical,
): AmplifierLoad[] {
  const { drivers } = speaker.document;
  const own = ways.flatMap((way, i): AmplifierLoad[] =>
    isActive(way)
      ? [{ way: way.id, ohms: unitOhms(drivers[i], speaker.units[i], electrical.frequenciesHz) }]
      : [],
  );
  return own.length === ways.length ? own : [{ ohms: speaker.impedance(electrical) }, ...own];
}

const known = new WeakMap<Unit, WeakMap<Float64Array, ComplexTrace>>();

/** Impedance of a unit, remembered as long as unit and frequencies are the same objects. */
export function unitOhms(of: Unit, unit: PreparedUnit, frequenciesHz: Float64Array): ComplexTrace {
  const memory = remembered(known, of, () => new WeakMap<Float64Array, ComplexTrace>());
  return remembered(memory, frequenciesHz, () => {
    const z = emptyTrace(frequenciesHz.length);
    frequenciesHz.forEach((hz, k) => {
      const { re, im } = impedanceAt(unit, hz);
      z.re[k] = re;
      z.im[k] = im;
    });
    return z;
  });
}

/**
 * The resistor that is as hard on a class-B output pair as an impedance is, at any one level of a
 * sine: at full swing V a transistor takes (1 - sin(t + phi)) sin t V^2/|Z|, which is most at
 * t = (pi/2 - phi + 2 pi k)/3, where its slope is nothing; a resistor takes V^2/(4 R) at most.
 */
export function hardestOhms(ohms: number, radians: number): number {
  let most = 0;
  for (let k = 0; k < 3; k++) {
    const t = (Math.PI / 2 - radians + 2 * Math.PI * k) / 3;
    most = Math.max(most, (1 - Math.sin(t + radians)) * Math.sin(t));
  }
  return ohms / (4 * most);
}

/** Sizes of an impedance. */
export const sizesOf = ({ re, im }: ComplexTrace): Float64Array =>
  re.map((x, k) => Math.hypot(x, im[k]));

/** The same of a load over frequency. */
export const hardest = ({ re, im }: ComplexTrace): Float64Array =>
  re.map((x, k) => hardestOhms(Math.hypot(x, im[k]), Math.atan2(im[k], x)));
