import type { PartKind } from '../part-kind';

export const supply: PartKind = {
  kind: 'supply',
  noun: 'supply',
  article: 'a',
  letter: 'V',
  symbol: {
    pins: [{ name: 'plus', at: [0, 0], leaves: 'down' }],
    axis: 0,
    body: [
      [-0.7, -0.2],
      [0.7, -0.2],
      [0.7, 0.1],
      [-0.7, 0.1],
    ],
    leads: [],
    strokes: () => [{ d: 'M-14 0H14M-14 -3H14' }],
    words: 'around',
  },
  quantities: [{ name: 'volts', label: 'Voltage', quantity: 'volts', usual: 9, signed: true }],
  series: null,
  price: null,
  tolerance: 0,
  become: ({ id, nets: { plus }, values: { volts }, ground }) => [
    { id, kind: 'voltage-source', plus, minus: ground, dcVolts: volts },
  ],
  take(part, ground) {
    if (part.kind !== 'voltage-source' || part.acVolts || part.waveform) return undefined;
    const volts = part.dcVolts ?? 0;
    if (part.minus === ground) return { nets: { plus: part.plus }, values: { volts } };
    return part.plus === ground
      ? { nets: { plus: part.minus }, values: { volts: -volts } }
      : undefined;
  },
};
