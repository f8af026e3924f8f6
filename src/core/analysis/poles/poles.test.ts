import fc from 'fast-check';
import { makeCircuit } from '@/core/circuit/schema';
import { polesAndZeros } from './poles';
import { filters, level, source } from '../testing/circuits';

describe('poles and zeros', () => {
  test('the response computed from poles, zeros and one point is the response everywhere', () => {
    fc.assert(
      fc.property(filters, (circuit) => {
        const { poles, zeros, verdict } = polesAndZeros(circuit, 'out');
        expect(poles).toHaveLength(3);
        expect(['stable', 'marginal', 'unstable']).toContain(verdict);
        const size = (hz: number) =>
          zeros.reduce((a, z) => a * Math.hypot(z.re, 2 * Math.PI * hz - z.im), 1) /
          poles.reduce((a, p) => a * Math.hypot(p.re, 2 * Math.PI * hz - p.im), 1);
        const reference = level(circuit, 1000).db - 20 * Math.log10(size(1000));
        for (const hz of [10, 300, 8000, 90_000])
          expect(20 * Math.log10(size(hz)) + reference).toBeCloseTo(level(circuit, hz).db, 5);
      }),
      { numRuns: 40 },
    );
  });

  test('f0 and Q of a trap, zeros on the axis, and an oscillator found out', () => {
    const trap = makeCircuit([
      source,
      { id: 'R', kind: 'resistor', a: 'in', b: 'out', ohms: 10 },
      { id: 'L', kind: 'inductor', a: 'out', b: 'x', henries: 1e-3 },
      { id: 'C', kind: 'capacitor', a: 'x', b: '0', farads: 1e-6 },
    ]);
    const { poleFigures, zeroFigures } = polesAndZeros(trap, 'out');
    expect(poleFigures[0].f0Hz).toBeCloseTo(1 / (2 * Math.PI * Math.sqrt(1e-9)), 6);
    expect(poleFigures[0].q).toBeCloseTo(Math.sqrt(1e-3 / 1e-6) / 10, 9);
    expect(Math.abs(zeroFigures[0].roots[0].re)).toBeLessThan(1e-3);
    const runaway = makeCircuit([
      source,
      { id: 'R', kind: 'resistor', a: 'in', b: 'out', ohms: 1e4 },
      { id: 'C', kind: 'capacitor', a: 'out', b: '0', farads: 1e-8 },
      {
        id: 'G',
        kind: 'transconductor',
        from: '0',
        to: 'out',
        inPlus: 'out',
        inMinus: '0',
        siemens: 2e-4,
      },
    ]);
    expect(polesAndZeros(runaway, 'out').verdict).toBe('unstable');
  });
});
