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
    const flipFlop = {
      ...faultCircuit('dc-latch'),
      parts: [
        { id: 'V', kind: 'voltage-source', plus: 'vp', minus: '0', dcVolts: 9 },
        ...[1, 2].flatMap((k) => [
          { id: `RC${k}`, kind: 'resistor', a: 'vp', b: `c${k}`, ohms: 1000 },
          { id: `RB${k}`, kind: 'resistor', a: `c${k}`, b: `b${3 - k}`, ohms: 22_000 },
          {
            id: `Q${k}`,
            kind: 'transistor',
            collector: `c${k}`,
            base: `b${k}`,
            emitter: '0',
            model: {
              polarity: 'npn',
              saturationAmps: 1e-14,
              betaForward: 100,
              betaReverse: 1,
              baseEmitterFarads: 0,
              baseCollectorFarads: 0,
              transitSeconds: 0,
            },
          },
        ]),
      ],
    } as ReturnType<typeof faultCircuit>;
    const { nodes, others } = operatingPoint(flipFlop);
    const states = [nodes, ...others!].map(({ c1, c2 }) => Math.sign(Math.round(c1 - c2)));
    expect(states.sort()).toEqual([-1, 0, 1]);
  });
});
