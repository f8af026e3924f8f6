import { AcAnalysis } from '@/core/analysis/ac/ac';
import { emptyTrace, type ComplexTrace } from '@/core/analysis/ac/complex';
import { ReedError } from '@/core/errors';
import { AMP_NET, type SpeakerDocument, type Unit } from './document';
import { corrected, type Port } from './corrected';
import { sightOf, turned, AHEAD, type Place, type Turn } from './place';
import { DRIVE, speakerCircuit } from './speaker-circuit';
import { heardAround } from './heard-around';
import type { Surroundings } from './surroundings';
import { heardAt, prepareUnit, remembered, type PreparedUnit } from './unit';

/** The sound of a speaker at a place, pascals, and of each of its units. */
export interface Sound {
  sum: ComplexTrace;
  /** In the order of the document's drivers. */
  ways: ComplexTrace[];
}

/**
 * A speaker as it is solved: one circuit from amplifier to units gives the volts at their terminals and
 * the amplifier's load; what each unit makes of its volts, and the way through the air, are closed forms
 * or measured tables. Where an impedance was measured the circuit is corrected to it at each frequency.
 */
export class SolvedSpeaker {
  readonly units: readonly PreparedUnit[];
  readonly analysis: AcAnalysis;
  readonly ports: readonly Port[];

  /**
   * @param retired one that is no longer needed: its equations are taken over where they fit
   * @param loaded whether what the amplifier is loaded with is of interest: next to nothing ahead of
   *   amplifiers of the ways' own, where it takes many times as long to be told exactly
   * @throws ReedError `circuit` for a network that cannot be solved
   */
  constructor(
    readonly document: SpeakerDocument,
    retired?: SolvedSpeaker,
    readonly loaded = true,
  ) {
    this.units = document.drivers.map(prepareUnit);
    const circuit = speakerCircuit(document);
    this.analysis = retired?.analysis.take(circuit) ? retired.analysis : new AcAnalysis(circuit);
    this.ports = this.units.map((unit) => {
      const { plus, minus } = document.connections.find((c) => c.driver === unit.id)!;
      return { unit, plus, minus };
    });
  }

  /**
   * What is the same wherever one listens, for a volt of drive.
   *
   * @throws ReedError as `AcAnalysis.solve`
   */
  electrical(frequenciesHz: Float64Array): Electrical {
    const nets = [...new Set([AMP_NET, ...this.ports.flatMap(({ plus, minus }) => [plus, minus])])];
    const { probes, currents } = this.analysis.solve({
      frequenciesHz,
      probes: nets,
      currents: this.loaded ? [DRIVE] : [],
    });
    const across = this.ports.map(({ plus, minus }) => difference(probes[plus], probes[minus]));
    const plain: Electrical = {
      frequenciesHz,
      amp: probes[AMP_NET],
      // The current of a source is counted from its plus terminal through it.
      ...(this.loaded ? { drawn: negated(currents[DRIVE]) } : {}),
      across,
    };
    return corrected(plain, this.analysis, this.ports);
  }

  /**
   * Impedance that the amplifier is loaded with, ohms.
   *
   * @throws ReedError `circuit` of a speaker that was solved without it
   */
  impedance({ amp, drawn }: Electrical): ComplexTrace {
    if (!drawn) throw new ReedError('circuit', 'The amplifier’s load was not asked for.');
    const z = emptyTrace(amp.re.length);
    for (let k = 0; k < z.re.length; k++) {
      const n = drawn.re[k] ** 2 + drawn.im[k] ** 2;
      z.re[k] = (amp.re[k] * drawn.re[k] + amp.im[k] * drawn.im[k]) / n;
      z.im[k] = (amp.im[k] * drawn.re[k] - amp.re[k] * drawn.im[k]) / n;
    }
    return z;
  }

  /** The sound where the document listens, turned so far; rms pascals at the document's drive. */
  sound(electrical: Electrical, turn: Turn = AHEAD): Sound {
    return this.soundAt(electrical, turned(this.document.listen, turn));
  }

  soundAt({ frequenciesHz, across }: Electrical, listener: Place): Sound {
    const { drivers, drive, surroundings } = this.document;
    const sum = emptyTrace(frequenciesHz.length);
    const ways = this.units.map((unit, i) => {
      const by = heardOf(drivers[i], unit, listener, frequenciesHz, surroundings);
      const way = emptyTrace(frequenciesHz.length);
      for (let k = 0; k < frequenciesHz.length; k++) {
        const [vr, vi] = [across[i].re[k] * drive.volts, across[i].im[k] * drive.volts];
        way.re[k] = by.re[k] * vr - by.im[k] * vi;
        way.im[k] = by.re[k] * vi + by.im[k] * vr;
        sum.re[k] += way.re[k];
        sum.im[k] += way.im[k];
      }
      return way;
    });
    return { sum, ways };
  }
}

/** Voltages and currents of a speaker for a volt of drive. */
export interface Electrical {
  frequenciesHz: Float64Array;
  /** At the amplifier's net, and the current that it gives, where that is of interest. */
  amp: ComplexTrace;
  drawn?: ComplexTrace;
  /** Across each unit. */
  across: ComplexTrace[];
}

/**
 * What a listener hears of a unit for a volt at its terminals, remembered as long as unit and
 * frequencies are the same objects: edits of a network ask for the same again and again.
 */
function heardOf(
  of: Unit,
  unit: PreparedUnit,
  listener: Place,
  frequenciesHz: Float64Array,
  surroundings: Surroundings | undefined,
): ComplexTrace {
  const memory = remembered(
    heard,
    of,
    () => new WeakMap<Float64Array, Map<string, ComplexTrace>>(),
  );
  const places = remembered(memory, frequenciesHz, () => new Map<string, ComplexTrace>());
  const sight = sightOf(of.place, listener);
  // Alone, units that are seen alike are heard alike; with a floor or a wall the very place counts.
  const key = surroundings
    ? JSON.stringify([listener, surroundings])
    : `${sight.metres} ${sight.sine}`;
  let found = places.get(key);
  if (!found) {
    if (places.size >= MOST_PLACES) places.clear();
    found = emptyTrace(frequenciesHz.length);
    for (let k = 0; k < frequenciesHz.length; k++) {
      const { re, im } = surroundings
        ? heardAround(unit, of.place, listener, frequenciesHz[k], surroundings)
        : heardAt(unit, sight, frequenciesHz[k]);
      found.re[k] = re;
      found.im[k] = im;
    }
    places.set(key, found);
  }
  return found;
}

const MOST_PLACES = 200;
const heard = new WeakMap<Unit, WeakMap<Float64Array, Map<string, ComplexTrace>>>();

const difference = (a: ComplexTrace, b: ComplexTrace): ComplexTrace => ({
  re: a.re.map((x, k) => x - b.re[k]),
  im: a.im.map((x, k) => x - b.im[k]),
});
const negated = ({ re, im }: ComplexTrace): ComplexTrace => ({
  re: re.map((x) => -x),
  im: im.map((x) => -x),
});
