import type { Ask } from '@/core/design/ask';
import { HALF_POWER_DB } from '@/core/response/decibels';
import type { Reading } from '@/core/sheet/schema';
import type { StageAsk } from '@/core/topologies/topology';

/** Who begins a sheet, in the order of the list. */
export const PEOPLE = {
  learner: 'Learning with a resistor and a capacitor',
  builder: 'Building a filter with op-amps',
  tweaker: 'Trimming an amplifier or a line',
  steep: 'Holding limits, or going without power',
  bank: 'Making many bands',
  tracer: 'Drawing up a circuit that exists',
} as const;

/** A stage put in by hand; its frequency is relative to the job's. */
export interface HandStage {
  topology: string;
  target: Omit<StageAsk, 'f0Hz'>;
}

/** A way to begin: what someone wants done, and the ask it starts from. */
export interface Job {
  id: string;
  who: keyof typeof PEOPLE;
  title: string;
  line: string;
  ask: Ask;
  /** Stages that no ask makes; the ask then only places them. */
  stages?: readonly HandStage[];
  /** A stage of one’s own, empty, to be drawn part by part. */
  own?: true;
  /** What such a sheet is judged by, at a frequency. */
  readings?: (hz: number) => Reading[];
  source: { name: string; ohms: number };
  load: { name: string; ohms: number | null };
  /** Centres of a bank's channels, relative to the ask's; the ask then only places it. */
  bank?: readonly number[];
}

const base = { edge: 'half-power' } as const;

const level = (id: string, hz: number, name?: string): Reading => ({
  id,
  ...(name ? { name } : {}),
  measure: { measure: 'level', atHz: hz },
});

/** Every job, by the person who does it. */
const ALL: readonly Job[] = [
  {
    id: 'learn-rc',
    who: 'learner',
    title: 'See what one resistor and one capacitor do',
    line: 'Low notes pass, high notes are eaten; look at Level, then at Time',
    ask: {
      ...base,
      kind: 'low-pass',
      shape: 'butterworth',
      order: 1,
      edgeHz: 1000,
      topology: 'rc-low-pass',
    },
    source: { name: 'Signal', ohms: 0 },
    load: { name: 'Nothing', ohms: null },
  },
  {
    id: 'learn-loading',
    who: 'learner',
    title: 'See why two RCs in a row are not twice one',
    line: 'The second loads the first: its joint says by how much',
    ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
    stages: [
      { topology: 'rc-low-pass', target: {} },
      { topology: 'rc-low-pass', target: {} },
    ],
    readings: (hz) => [
      level('r1', hz, 'Level at the corner of each'),
      {
        id: 'r2',
        measure: {
          measure: 'edge',
          downDb: HALF_POWER_DB,
          side: 'upper',
          reference: { from: 'plateau' },
        },
      },
    ],
    source: { name: 'Signal', ohms: 0 },
    load: { name: 'Nothing', ohms: null },
  },
  {
    id: 'tame-top',
    who: 'learner',
    title: 'Take the top off, simply',
    line: 'One resistor, one capacitor, 6 dB per octave',
    ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 5000 },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 47_000 },
  },
  {
    id: 'block-dc',
    who: 'learner',
    title: 'Block d.c., keep the music',
    line: 'One capacitor into one resistor',
    ask: { ...base, kind: 'high-pass', shape: 'butterworth', order: 1, edgeHz: 10 },
    source: { name: 'Output stage', ohms: 100 },
    load: { name: 'Next input', ohms: 100_000 },
  },
  {
    id: 'flat-low',
    who: 'builder',
    title: 'Pass low notes with a flat top',
    line: 'Second order, op-amp, no peak',
    ask: {
      ...base,
      kind: 'low-pass',
      shape: 'butterworth',
      order: 2,
      edgeHz: 1000,
      gainDb: 0,
      topology: 'unity-low-pass',
    },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'keep-rumble',
    who: 'builder',
    title: 'Keep rumble out',
    line: 'Second-order high-pass under the music',
    ask: {
      ...base,
      kind: 'high-pass',
      shape: 'butterworth',
      order: 2,
      edgeHz: 20,
      gainDb: 0,
      topology: 'unity-high-pass',
    },
    source: { name: 'Preamp', ohms: 220 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'steep-low',
    who: 'builder',
    title: 'Cut steeply above speech',
    line: 'Fourth order in two stages, 24 dB per octave',
    ask: {
      ...base,
      kind: 'low-pass',
      shape: 'butterworth',
      order: 4,
      edgeHz: 3400,
      gainDb: 0,
      topology: 'unity-low-pass',
    },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'gain-filter',
    who: 'builder',
    title: 'Filter and amplify at once',
    line: 'Inverting low-pass with 12 dB of gain',
    ask: {
      ...base,
      kind: 'low-pass',
      shape: 'butterworth',
      order: 2,
      edgeHz: 8000,
      gainDb: 12,
      topology: 'multiple-feedback-low-pass',
    },
    source: { name: 'Preamp', ohms: 100 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'one-band',
    who: 'builder',
    title: 'Keep one band',
    line: 'Band-pass around a centre, two op-amps',
    ask: {
      ...base,
      kind: 'band-pass',
      shape: 'butterworth',
      order: 2,
      lowerHz: 800,
      upperHz: 1250,
      gainDb: 0,
    },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'hum',
    who: 'builder',
    title: 'Take out a hum',
    line: 'A narrow notch at the mains frequency',
    ask: { ...base, kind: 'notch', shape: 'butterworth', centreHz: 50, q: 4, gainDb: 0 },
    source: { name: 'Preamp', ohms: 220 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'all-outputs',
    who: 'builder',
    title: 'Low, band and high from one circuit',
    line: 'State-variable: three outputs, Q and corner set apart',
    ask: {
      ...base,
      kind: 'low-pass',
      shape: 'butterworth',
      order: 2,
      edgeHz: 1000,
      topology: 'state-variable-low-pass',
    },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'turn-phase',
    who: 'builder',
    title: 'Turn phase, leave level alone',
    line: 'An all-pass of second order',
    ask: { ...base, kind: 'all-pass', shape: 'bessel', order: 2, edgeHz: 500 },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'trim-gain-top',
    who: 'tweaker',
    title: 'Trim the top of a gain stage',
    line: 'One capacitor across the feedback resistor, 20 dB of gain below',
    ask: {
      ...base,
      kind: 'high-shelf',
      shape: 'butterworth',
      order: 1,
      edgeHz: 15_000,
      gainDb: -20,
    },
    stages: [{ topology: 'shaped-gain-top', target: { gain: 10, boost: 0.1 } }],
    readings: (hz) => [level('r1', 1000), level('r2', hz), level('r3', 20_000)],
    source: { name: 'Preamp', ohms: 600 },
    load: { name: 'Power amplifier in', ohms: 22_000 },
  },
  {
    id: 'trim-gain-bottom',
    who: 'tweaker',
    title: 'Trim the bottom of a gain stage',
    line: 'One capacitor in the foot of the divider, no gain for d.c.',
    ask: { ...base, kind: 'low-shelf', shape: 'butterworth', order: 1, edgeHz: 20, gainDb: -20 },
    stages: [{ topology: 'shaped-gain-bottom', target: { gain: 10, boost: 0.1 } }],
    readings: (hz) => [level('r1', 1000), level('r2', hz), level('r3', 41)],
    source: { name: 'Preamp', ohms: 600 },
    load: { name: 'Power amplifier in', ohms: 22_000 },
  },
  {
    id: 'pad',
    who: 'tweaker',
    title: 'Set a level with a pad',
    line: 'Two resistors, 10 dB down, loads included',
    ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
    stages: [{ topology: 'l-pad', target: { gain: 0.316 } }],
    readings: (hz) => [level('r1', hz)],
    source: { name: 'Line out', ohms: 100 },
    load: { name: 'Mixer in', ohms: 47_000 },
  },
  {
    id: 'tone',
    who: 'tweaker',
    title: 'Bass and treble knobs without an op-amp',
    line: 'A passive tone control, both knobs in the middle',
    ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
    stages: [{ topology: 'tone-control', target: { own: { bass: 0.1, treble: 0.1 } } }],
    readings: (hz) => [level('r1', hz / 10), level('r2', hz), level('r3', hz * 10)],
    source: { name: 'Buffer', ohms: 100 },
    load: { name: 'Amplifier in', ohms: 470_000 },
  },
  {
    id: 'meet-limits',
    who: 'steep',
    title: 'Meet limits with the least parts',
    line: 'What must pass, what must not; the order follows',
    ask: {
      kind: 'low-pass',
      shape: 'elliptic',
      limits: { passHz: 3400, passDb: 0.5, stopHz: 6000, stopDb: 45 },
    },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'lift',
    who: 'tweaker',
    title: 'Lift or cut one region',
    line: 'A peak with its height and width',
    ask: { ...base, kind: 'peak', shape: 'butterworth', centreHz: 2500, q: 1.4, gainDb: 6 },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'shelf',
    who: 'tweaker',
    title: 'Lift the bass or the treble',
    line: 'A shelf, half its height at the edge',
    ask: { ...base, kind: 'high-shelf', shape: 'butterworth', order: 1, edgeHz: 3000, gainDb: -6 },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'coils',
    who: 'steep',
    title: 'Filter without power',
    line: 'A ladder of coils and capacitors between two resistors',
    ask: {
      ...base,
      kind: 'low-pass',
      shape: 'butterworth',
      order: 5,
      edgeHz: 15_000,
      topology: 'lc-ladder-low-pass-5',
    },
    source: { name: 'Line out', ohms: 0 },
    load: { name: 'Line in', ohms: 100_000 },
  },
  {
    id: 'bank',
    who: 'bank',
    title: 'A bank of bands',
    line: 'Six channels side by side, an octave apart',
    ask: { ...base, kind: 'band-pass', shape: 'butterworth', order: 2, centreHz: 500, q: 2 },
    source: { name: 'Line out', ohms: 0 },
    load: { name: 'Summing resistor', ohms: 47_000 },
    bank: [1 / 4, 1 / 2, 1, 2, 4, 8],
  },
  {
    id: 'trace',
    who: 'tracer',
    title: 'Trace a circuit, part by part',
    line: 'Begin at its input and say what is joined to what; it draws itself',
    ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
    own: true,
    readings: (hz) => [
      level('r1', hz),
      { id: 'r2', measure: { measure: 'peak-level' } },
      { id: 'r3', measure: { measure: 'peak-frequency' } },
    ],
    source: { name: 'Source', ohms: 0 },
    load: { name: 'Load', ohms: 100_000 },
  },
];

/** The list, those of one person together. */
export const JOBS: readonly Job[] = (Object.keys(PEOPLE) as (keyof typeof PEOPLE)[]).flatMap(
  (who) => ALL.filter((job) => job.who === who),
);
