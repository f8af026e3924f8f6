import { makeCircuit } from '@/core/circuit/schema';
import { source } from '../testing/circuits';
import { impedanceAt, loopView } from './two-port';

test('impedances and the loop of an op-amp', () => {
  const circuit = makeCircuit([
    source,
    { id: 'R1', kind: 'resistor', a: 'in', b: 'm', ohms: 1e4 },
    { id: 'R2', kind: 'resistor', a: 'm', b: 'out', ohms: 1e4 },
    {
      id: 'A1',
      kind: 'op-amp',
      inPlus: '0',
      inMinus: 'm',
      out: 'out',
      model: { gainBandwidthHz: 1e6, dcGainDb: 100 },
    },
  ]);
  const frequenciesHz = Array.from({ length: 61 }, (_, k) => 10 ** (1 + k / 10));
  const loop = loopView(circuit, 'A1', frequenciesHz);
  expect(loop.crossoverHz! / 5e5).toBeCloseTo(1, 6);
  expect(loop.phaseMarginDegrees).toBeCloseTo(90, 1);
  expect(loop.noiseGainDb[0]).toBeCloseTo(20 * Math.log10(2), 9);
  expect(Math.abs(impedanceAt(circuit, 'm', [100]).re[0])).toBeLessThan(2);
});
