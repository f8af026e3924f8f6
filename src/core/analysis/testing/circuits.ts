import fc from 'fast-check';
import { makeCircuit, type Circuit, type PartOf } from '@/core/circuit/schema';
import { acResponse } from '../ac/ac';

export const OP_AMP = {
  gainBandwidthHz: 3e6,
  dcGainDb: 100,
  outputOhms: 100,
  inputVoltageNoise: 8e-9,
  inputCurrentNoise: 1e-12,
};
export const source: PartOf<'voltage-source'> = {
  id: 'V1',
  kind: 'voltage-source',
  plus: 'in',
  minus: '0',
  acVolts: 1,
};

/** A second-order low-pass with gain around a one-pole op-amp, values drawn. */
export const filters = fc
  .record({
    R1: log(1e3, 1e5),
    R2: log(1e3, 1e5),
    C1: log(1e-10, 1e-7),
    C2: log(1e-10, 1e-7),
    K: fc.double({ min: 1.05, max: 1.6, noNaN: true }),
  })
  .map(({ R1, R2, C1, C2, K }): Circuit =>
    makeCircuit([
      source,
      { id: 'R1', kind: 'resistor', a: 'in', b: 'a', ohms: R1 },
      { id: 'R2', kind: 'resistor', a: 'a', b: 'p', ohms: R2 },
      { id: 'C1', kind: 'capacitor', a: 'a', b: 'out', farads: C1 },
      { id: 'C2', kind: 'capacitor', a: 'p', b: '0', farads: C2 },
      { id: 'A1', kind: 'op-amp', inPlus: 'p', inMinus: 'm', out: 'out', model: OP_AMP },
      { id: 'RF', kind: 'resistor', a: 'out', b: 'm', ohms: 1e4 * (K - 1) },
      { id: 'RG', kind: 'resistor', a: 'm', b: '0', ohms: 1e4 },
    ]),
  );

export function log(min: number, max: number): fc.Arbitrary<number> {
  return fc.double({ min: Math.log(min), max: Math.log(max), noNaN: true }).map(Math.exp);
}

export const level = (circuit: Circuit, hz: number) => {
  const { re, im } = acResponse(circuit, { frequenciesHz: [hz], probes: ['out'] }).probes.out;
  return {
    db: 20 * Math.log10(Math.hypot(re[0], im[0])),
    degrees: (Math.atan2(im[0], re[0]) * 180) / Math.PI,
    re: re[0],
    im: im[0],
  };
};

export const scaledPart = (circuit: Circuit, id: string, factor: number): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p) =>
    p.id !== id
      ? p
      : p.kind === 'resistor'
        ? { ...p, ohms: p.ohms * factor }
        : p.kind === 'capacitor'
          ? { ...p, farads: p.farads * factor }
          : p,
  ),
});
