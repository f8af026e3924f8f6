import * as z from 'zod';
import { waveformSchema } from '@/core/circuit/waveform';
import type { PartKind, PartQuantity } from '../part-kind';
import { twoEnded } from '../two-ended';

const model = z.strictObject({ waveform: waveformSchema });
type Model = z.infer<typeof model>;

/** What a source gives at rest, and as a small signal, in volts or amperes. */
const gives = (quantity: 'volts' | 'amps', usual: number): PartQuantity[] => [
  { name: 'dc', label: 'At rest', quantity, usual, signed: true },
  { name: 'ac', label: 'Small signal', quantity, usual: 0, signed: true },
  {
    name: 'degrees',
    label: 'Its phase',
    quantity: 'degrees',
    usual: 0,
    range: [-360, 360],
    signed: true,
  },
];

const CIRCLE = {
  d: 'M26 0a14 14 0 1 0 28 0a14 14 0 1 0 -28 0',
  fill: 'paper',
} as const;

const waveformOf = (its: unknown) =>
  its === undefined ? {} : { waveform: (its as Model).waveform };

const SAME = {
  article: 'a',
  model,
  models: [],
  series: null,
  price: null,
  tolerance: 0,
} as const;

export const source: PartKind = {
  ...SAME,
  kind: 'source',
  noun: 'voltage source',
  letter: 'V',
  symbol: {
    ...twoEnded(
      { half: 0.75, from: 1.3, to: 2.7 },
      [{ d: 'M0 0H26M54 0H80' }, CIRCLE, { d: 'M32 0q4 -8 8 0t8 0' }],
      ['plus', 'minus'],
    ),
    marks: [{ text: '+', at: [0.9, -0.5] }],
  },
  quantities: gives('volts', 1),
  become: ({ id, nets: { plus, minus }, values: { dc, ac, degrees }, model: its }) => [
    {
      id,
      kind: 'voltage-source',
      plus,
      minus,
      dcVolts: dc,
      acVolts: ac,
      acDegrees: degrees,
      ...waveformOf(its),
    },
  ],
  take: (part) =>
    part.kind === 'voltage-source'
      ? {
          nets: { plus: part.plus, minus: part.minus },
          values: { dc: part.dcVolts ?? 0, ac: part.acVolts ?? 0, degrees: part.acDegrees ?? 0 },
          ...(part.waveform ? { model: { waveform: part.waveform } } : {}),
        }
      : undefined,
};

export const currentSource: PartKind = {
  ...SAME,
  kind: 'current-source',
  noun: 'current source',
  letter: 'I',
  symbol: twoEnded(
    { half: 0.75, from: 1.3, to: 2.7 },
    [{ d: 'M0 0H26M54 0H80' }, CIRCLE, { d: 'M31 0H44' }, { d: 'M49 0L41 -4.5V4.5Z', fill: 'ink' }],
    ['from', 'to'],
  ),
  quantities: gives('amps', 1e-3),
  become: ({ id, nets: { from, to }, values: { dc, ac, degrees }, model: its }) => [
    {
      id,
      kind: 'current-source',
      from,
      to,
      dcAmps: dc,
      acAmps: ac,
      acDegrees: degrees,
      ...waveformOf(its),
    },
  ],
  take: (part) =>
    part.kind === 'current-source'
      ? {
          nets: { from: part.from, to: part.to },
          values: { dc: part.dcAmps ?? 0, ac: part.acAmps ?? 0, degrees: part.acDegrees ?? 0 },
          ...(part.waveform ? { model: { waveform: part.waveform } } : {}),
        }
      : undefined,
};
