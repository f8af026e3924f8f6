import type { Circuit } from '@/core/circuit/schema';
import { askSchema, mainHz, type Ask } from '@/core/design/ask';
import { designCircuit } from '@/core/design/circuit';
import { designAsk } from '@/core/design/design';

/** A circuit that boards are made of, and the frequency that it is about. */
export interface Subject {
  name: string;
  circuit: Circuit;
  hz: number;
}

/** Twelve circuits, from six parts to thirty: what people build. */
const ASKS: Readonly<Record<string, Partial<Ask>>> = {
  'unity low-pass': { kind: 'low-pass', order: 2, edgeHz: 1000, topology: 'unity-low-pass' },
  'multiple-feedback low-pass': {
    kind: 'low-pass',
    order: 2,
    edgeHz: 870,
    topology: 'multiple-feedback-low-pass',
    gainDb: 6,
  },
  'fourth-order low-pass': {
    kind: 'low-pass',
    order: 4,
    edgeHz: 3400,
    topology: 'unity-low-pass',
  },
  'fourth-order low-pass with gain': {
    kind: 'low-pass',
    order: 4,
    edgeHz: 3400,
    topology: 'gain-low-pass',
  },
  'state-variable low-pass': {
    kind: 'low-pass',
    order: 2,
    edgeHz: 500,
    topology: 'state-variable-low-pass',
  },
  'third-order high-pass': { kind: 'high-pass', order: 3, edgeHz: 120, shape: 'bessel' },
  'multiple-feedback band-pass': {
    kind: 'band-pass',
    order: 1,
    centreHz: 1000,
    q: 4,
    topology: 'multiple-feedback-band-pass',
  },
  'speech band': { kind: 'band-pass', order: 3, lowerHz: 300, upperHz: 3400 },
  'hum notch': { kind: 'notch', centreHz: 50, q: 4 },
  'coil ladder': { kind: 'low-pass', order: 5, edgeHz: 15_000, topology: 'lc-ladder-low-pass-5' },
  shelf: { kind: 'low-shelf', order: 1, edgeHz: 200, gainDb: 6 },
  peak: { kind: 'peak', centreHz: 2500, q: 1.5, gainDb: 6 },
};

export const SUBJECTS: readonly Subject[] = Object.entries(ASKS).map(([name, given]) => {
  const ask = askSchema.parse(given);
  return { name, circuit: designCircuit(designAsk(ask), 'ideal').circuit, hz: mainHz(ask) };
});

export const subjectCalled = (name: string): Subject => SUBJECTS.find((s) => s.name === name)!;
