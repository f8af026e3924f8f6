import { isValued, valueOfPart, type Valued } from '@/core/mistakes/mistake';
import type { Circuit } from '@/core/circuit/schema';
import { shuffled } from '@/core/random';
import type { Fault } from '@/core/rig/fault';

/** A rung of the ladder: what is got wrong on its boards, and how well all else is known. */
export interface Rung {
  name: string;
  /** What the learner is told. */
  told: string;
  /** The sheets that its boards are of, by id. */
  sheets: readonly string[];
  /** Faults that it may have, in an order drawn by lot. */
  faults: (circuit: Circuit, own: readonly Valued[], random: () => number) => Iterable<Fault>;
  /** How far all other parts may be off: a part of what is usual for their kind. */
  tolerances: number;
  noiseDb: number;
  /** What it does somewhere to the level at the output, at least, dB. */
  leastDb: number;
}

/** Parts whose value is seen at a glance to be another. */
const APART = 1.3;

function* gross(_: Circuit, own: readonly Valued[], random: () => number): Generator<Fault> {
  for (const { id } of own) yield { is: random() < 0.6 ? 'missing' : 'shorted', part: id };
}

function* decades(_: Circuit, own: readonly Valued[], random: () => number): Generator<Fault> {
  for (const { id } of own) yield { is: 'factor', part: id, factor: random() < 0.5 ? 10 : 0.1 };
}

function* swaps(_: Circuit, own: readonly Valued[]): Generator<Fault> {
  for (const [i, one] of own.entries())
    for (const other of own.slice(i + 1)) {
      const ratio = valueOfPart(one) / valueOfPart(other);
      if (one.kind === other.kind && Math.max(ratio, 1 / ratio) > APART)
        yield { is: 'swapped', parts: [one.id, other.id] };
    }
}

/** Off by a factor between two, up or down. */
const offBy = (least: number, most: number): Rung['faults'] =>
  function* (_, own, random) {
    for (const { id } of own) {
      const by = least + (most - least) * random();
      // To two digits, as a wrong part from the same box would be.
      const factor = Number((random() < 0.5 ? by : 1 / by).toPrecision(2));
      yield { is: 'factor', part: id, factor };
    }
  };

const ALL: readonly Rung['faults'][] = [gross, decades, swaps, offBy(1.15, 1.5)];

const EASY = ['demo-trim', 'demo-rumble', 'demo-speech'];
const WIDER = ['demo-rumble', 'demo-speech', 'demo-hum'];

/** From what anyone sees to what only a careful eye does: one entry each. */
export const LADDER: readonly Rung[] = [
  {
    name: 'Not there, or bridged',
    told: 'One part was never soldered, or a blob of solder lies across it. All others are good.',
    sheets: EASY,
    faults: gross,
    tolerances: 0.2,
    noiseDb: 0.05,
    leastDb: 3,
  },
  {
    name: 'A decade off',
    told: 'One part is ten times, or a tenth of, what it should be: a band or a letter misread.',
    sheets: EASY,
    faults: decades,
    tolerances: 0.2,
    noiseDb: 0.05,
    leastDb: 3,
  },
  {
    name: 'In each other’s places',
    told: 'Two parts of one kind stand in each other’s places. Name both.',
    sheets: WIDER,
    faults: swaps,
    tolerances: 0.3,
    noiseDb: 0.05,
    leastDb: 1,
  },
  {
    name: 'Half as much again',
    told: 'One part is off by something between a third and two thirds.',
    sheets: WIDER,
    faults: offBy(1.35, 1.65),
    tolerances: 0.3,
    noiseDb: 0.1,
    leastDb: 1,
  },
  {
    name: 'A fifth off',
    told: 'One part is off by about a fifth, and all others by what their tolerances allow.',
    sheets: ['demo-speech', 'demo-hum', 'demo-steep'],
    faults: offBy(1.17, 1.25),
    tolerances: 1,
    noiseDb: 0.1,
    leastDb: 0.8,
  },
  {
    name: 'Anything, anywhere',
    told: 'Something is wrong. Parts are everyday parts, and the meter is not the best.',
    sheets: ['demo-steep', 'demo-hum', 'demo-speech'],
    faults: function* (circuit, own, random) {
      for (const faults of shuffled(ALL, random)) {
        const [first] = faults(circuit, shuffled(own, random), random);
        if (first as Fault | undefined) yield first;
      }
    },
    tolerances: 1,
    noiseDb: 0.2,
    leastDb: 1,
  },
];

/** The parts of a circuit that can be got wrong, in an order drawn by lot. */
export const culprits = (
  circuit: Circuit,
  fixed: ReadonlySet<string>,
  random: () => number,
): Valued[] =>
  shuffled(
    circuit.parts.filter(isValued).filter(({ id }) => !fixed.has(id)),
    random,
  );
