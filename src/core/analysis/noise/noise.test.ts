import fc from 'fast-check';
import { THERMAL_VOLTS } from '@/core/constants';
import { makeCircuit } from '@/core/circuit/schema';
import { noise } from './noise';
import { filters, source } from '../testing/circuits';

describe('noise', () => {
  test('kT/C: the total of an RC does not depend on R; contributions sum to the total', () => {
    const circuit = makeCircuit([
      source,
      { id: 'R', kind: 'resistor', a: 'in', b: 'out', ohms: 2200 },
      { id: 'C', kind: 'capacitor', a: 'out', b: '0', farads: 1e-9 },
    ]);
    const { rmsVolts } = noise(circuit, {
      probe: 'out',
      frequenciesHz: [1],
      fromHz: 1e-3,
      toHz: 1e11,
    });
    expect(rmsVolts / Math.sqrt((1.380649e-23 * 300.15) / 1e-9)).toBeCloseTo(1, 4);
    fc.assert(
      fc.property(filters, (filter) => {
        const result = noise(filter, {
          probe: 'out',
          frequenciesHz: [1000],
          fromHz: 20,
          toHz: 20_000,
        });
        expect(
          Math.hypot(...result.contributions.map((c) => c.rmsVolts)) / result.rmsVolts,
        ).toBeCloseTo(1, 9);
        expect(result.rmsVoltsA).toBeLessThan(result.rmsVolts * 1.2);
      }),
      { numRuns: 10 },
    );
  });

  test.each([50, 3e4, 1e6])('kT/C of a resonance of Q = %d, whatever its Q', (quality) => {
    const [farads, henries] = [1e-7, 0.01];
    const ohms = quality * Math.sqrt(henries / farads);
    const circuit = makeCircuit([
      { id: 'R', kind: 'resistor', a: 'out', b: '0', ohms },
      { id: 'L', kind: 'inductor', a: 'out', b: '0', henries },
      { id: 'C', kind: 'capacitor', a: 'out', b: '0', farads },
    ]);
    const { rmsVolts } = noise(circuit, {
      probe: 'out',
      frequenciesHz: [],
      fromHz: 1,
      toHz: 1e8,
    });
    const all = Math.sqrt((1.380649e-23 * 300.15) / farads);
    // What lies above the band: the skirt falls as 1 / f^2, so that a tail of f0 / Q / f is left.
    expect(Math.abs(rmsVolts / all - 1)).toBeLessThan(2e-5);
  });

  test('a diode carrying I behaves as half a resistor: 2 q I against r = n VT / I', () => {
    const circuit = makeCircuit([
      { id: 'I1', kind: 'current-source', from: '0', to: 'out', dcAmps: 1e-3 },
      {
        id: 'D1',
        kind: 'diode',
        anode: 'out',
        cathode: '0',
        model: {
          saturationAmps: 1e-12,
          emissionCoefficient: 1,
          junctionFarads: 0,
          transitSeconds: 0,
        },
      },
    ]);
    const [{ voltsPerRootHz }] = noise(circuit, {
      probe: 'out',
      frequenciesHz: [1000],
      fromHz: 10,
      toHz: 1000,
    }).spots;
    expect(
      voltsPerRootHz / Math.sqrt(2 * 1.602176634e-19 * 1e-3 * (THERMAL_VOLTS / 1e-3) ** 2),
    ).toBeCloseTo(1, 6);
  });

  test('a total without spots is the total with them', () => {
    fc.assert(
      fc.property(filters, (circuit) => {
        const band = { probe: 'out', fromHz: 20, toHz: 20_000 };
        const alone = noise(circuit, { ...band, frequenciesHz: [] });
        const beside = noise(circuit, { ...band, frequenciesHz: [1000] });
        expect(alone.spots).toEqual([]);
        expect(alone.rmsVolts / beside.rmsVolts).toBeCloseTo(1, 9);
      }),
      { numRuns: 20 },
    );
  });
});
