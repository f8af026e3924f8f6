import { flipFlop } from '@/core/circuit/testing/flip-flop';
import { faultCircuit } from '../testing/faults';
import { operatingPoint } from './operating-point';

describe('circuits whose operating point was not found', () => {
  test('a latch of two transistors snaps over', () => {
    const { nodes } = operatingPoint(faultCircuit('dc-latch-twin'));
    expect(nodes.n).toBeCloseTo(0.831, 3);
    expect(nodes.p).toBeCloseTo(0.019, 3);
    expect(nodes.e).toBeCloseTo(0.994, 3);
    expect(operatingPoint(faultCircuit('dc-latch')).nodes.e).toBeLessThan(2);
  });

  test('devices of every kind in a tangle', () => {
    const { nodes, devices } = operatingPoint(faultCircuit('dc-random'));
    // Kirchhoff at n6: two resistors... are summed by hand.
    const volts = nodes;
    const leaving =
      (volts.n6 - volts.vp) / 213317.17869537836 + devices.D14[0] + devices.Q15[0] + devices.J21[1];
    expect(Math.abs(leaving)).toBeLessThan(1e-9);
  });

  test('a flip-flop names its other states', () => {
    const { nodes, others } = operatingPoint(flipFlop());
    const states = [nodes, ...others!].map(({ c1, out }) => Math.sign(Math.round(c1 - out) || 0));
    expect(states.sort()).toEqual([-1, 0, 1]);
  });
});
