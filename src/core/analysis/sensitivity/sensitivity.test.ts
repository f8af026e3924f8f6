import fc from 'fast-check';
import { makeCircuit } from '@/core/circuit/schema';
import { readingSensitivity } from '@/core/response/reading-sensitivity';
import { groupDelay, sensitivity } from './sensitivity';
import { filters, level, log, scaledPart, source } from '../testing/circuits';

describe('sensitivity', () => {
  test('the adjoint equals a central difference to 1e-5', () => {
    fc.assert(
      fc.property(filters, log(50, 20_000), (circuit, hz) => {
        for (const { part, levelDb, phaseDegrees } of sensitivity(circuit, {
          probe: 'out',
          frequenciesHz: [hz],
        })) {
          if (part === 'A1') continue;
          const h = 1e-4;
          const [up, down] = [
            level(scaledPart(circuit, part, Math.exp(h)), hz),
            level(scaledPart(circuit, part, Math.exp(-h)), hz),
          ];
          expect(Math.abs(levelDb[0] - (up.db - down.db) / (2 * h))).toBeLessThan(
            1e-5 * Math.max(1, Math.abs(levelDb[0])),
          );
          const turn = ((up.degrees - down.degrees + 540) % 360) - 180;
          expect(Math.abs(phaseDegrees[0] - turn / (2 * h))).toBeLessThan(
            1e-4 * Math.max(1, Math.abs(phaseDegrees[0])),
          );
        }
      }),
      { numRuns: 25 },
    );
  });

  test('scaling every impedance or every reactance: the sensitivities add up as they must', () => {
    fc.assert(
      fc.property(filters, log(50, 20_000), (circuit, hz) => {
        const ideal = {
          ...circuit,
          parts: circuit.parts.map((p) =>
            p.kind === 'op-amp' ? { ...p, model: 'ideal' as const } : p,
          ),
        };
        const list = sensitivity(ideal, { probe: 'out', frequenciesHz: [hz] });
        const sum = (letter: string) =>
          list.filter((s) => s.part.startsWith(letter)).reduce((a, s) => a + s.levelDb[0], 0);
        expect(sum('R')).toBeCloseTo(sum('C'), 6);
      }),
      { numRuns: 25 },
    );
  });

  test('an RC edge moves by minus one percent for one percent of R or C, and its group delay is exact', () => {
    const circuit = makeCircuit([
      source,
      { id: 'R', kind: 'resistor', a: 'in', b: 'out', ohms: 1e4 },
      { id: 'C', kind: 'capacitor', a: 'out', b: '0', farads: 1e-8 },
    ]);
    const edge = {
      measure: 'edge',
      downDb: 3,
      side: 'upper',
      reference: { from: 'level', db: 0 },
    } as const;
    for (const { value } of readingSensitivity(circuit, 'out', edge, { fromHz: 1, toHz: 1e6 }))
      expect(value).toBeCloseTo((-Math.sqrt(10 ** 0.3 - 1) * 1e4) / (2 * Math.PI), 3);
    const [tau, w] = [1e-4, 2 * Math.PI * 3000];
    expect(groupDelay(circuit, 'out', [3000])[0]).toBeCloseTo(tau / (1 + (w * tau) ** 2), 15);
  });
});
