import { makeCircuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
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

  test('a ladder whose amplifier drives itself far', () => {
    const { nodes, devices } = operatingPoint(faultCircuit('dc-driven-ladder'));
    // Kirchhoff where the way back meets the base: what comes through RQ goes through RB and into QB.
    const into = (nodes.n15 - nodes.n4) / 695.8398455145698 - nodes.n4 / 416.1149986644297;
    expect(Math.abs(into - devices.QB[1])).toBeLessThan(1e-9);
    expect(Math.abs(nodes.out)).toBeLessThan(12);
  });

  test('a flip-flop names its other states', () => {
    const { nodes, others } = operatingPoint(flipFlop());
    const states = [nodes, ...others!].map(({ c1, out }) => Math.sign(Math.round(c1 - out) || 0));
    expect(states.sort()).toEqual([-1, 0, 1]);
  });

  test('an input that takes more than its amplifier gives is named, with what is lacking', () => {
    const cell = (biasAmps: number) =>
      makeCircuit([
        UNIT_SOURCE,
        { id: 'A1', kind: 'ota', inPlus: 'in', inMinus: 'out', out: 'held', biasAmps },
        { id: 'C1', kind: 'capacitor', a: 'held', b: '0', farads: 1e-9 },
        {
          id: 'A2',
          kind: 'op-amp',
          inPlus: 'held',
          inMinus: 'out',
          out: 'out',
          model: { gainBandwidthHz: 1e7, dcGainDb: 100, biasAmps: 200e-9 },
        },
      ]);
    expect(Math.abs(operatingPoint(cell(1e-6)).nodes.out)).toBeLessThan(0.05);
    expect(() => operatingPoint(cell(150e-9))).toThrow(
      /A2 takes 50\snA more at net “held” than A1 can give: choose an op-amp with less input current/,
    );
  });
});
