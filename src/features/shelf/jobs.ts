import type { Ask } from '@/core/design/ask';

/** A way to begin: what someone wants done, and the ask it starts from. */
export interface Job {
  id: string;
  title: string;
  line: string;
  ask: Ask;
  source: { name: string; ohms: number };
  load: { name: string; ohms: number | null };
  /** Centres of a bank's channels, relative to the ask's; the ask then only places it. */
  bank?: readonly number[];
}

const base = { edge: 'half-power' } as const;

export const JOBS: readonly Job[] = [
  {
    id: 'tame-top',
    title: 'Take the top off, simply',
    line: 'One resistor, one capacitor, 6 dB per octave',
    ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 5000 },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 47_000 },
  },
  {
    id: 'block-dc',
    title: 'Block d.c., keep the music',
    line: 'One capacitor into one resistor',
    ask: { ...base, kind: 'high-pass', shape: 'butterworth', order: 1, edgeHz: 10 },
    source: { name: 'Output stage', ohms: 100 },
    load: { name: 'Next input', ohms: 100_000 },
  },
  {
    id: 'flat-low',
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
    title: 'Take out a hum',
    line: 'A narrow notch at the mains frequency',
    ask: { ...base, kind: 'notch', shape: 'butterworth', centreHz: 50, q: 4, gainDb: 0 },
    source: { name: 'Preamp', ohms: 220 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'meet-limits',
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
    title: 'Lift or cut one region',
    line: 'A peak with its height and width',
    ask: { ...base, kind: 'peak', shape: 'butterworth', centreHz: 2500, q: 1.4, gainDb: 6 },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'shelf',
    title: 'Lift the bass or the treble',
    line: 'A shelf, half its height at the edge',
    ask: { ...base, kind: 'high-shelf', shape: 'butterworth', order: 1, edgeHz: 3000, gainDb: -6 },
    source: { name: 'Line out', ohms: 600 },
    load: { name: 'Line in', ohms: 22_000 },
  },
  {
    id: 'coils',
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
    title: 'A bank of bands',
    line: 'Six channels side by side, an octave apart',
    ask: { ...base, kind: 'band-pass', shape: 'butterworth', order: 2, centreHz: 500, q: 2 },
    source: { name: 'Line out', ohms: 0 },
    load: { name: 'Summing resistor', ohms: 47_000 },
    bank: [1 / 4, 1 / 2, 1, 2, 4, 8],
  },
];
