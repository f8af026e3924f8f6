import { ReedError } from '@/core/errors';
import { makeCircuit, type Part } from '@/core/circuit/schema';
import { operatingPoint } from './operating-point';
import { source } from '../testing/circuits';
import { transient } from '../transient/transient';

describe('operating points', () => {
  test('a saturated transistor and a six-transistor circuit settle', () => {
    const model = {
      polarity: 'npn' as const,
      saturationAmps: 1e-14,
      betaForward: 200,
      betaReverse: 2,
      baseEmitterFarads: 0,
      baseCollectorFarads: 0,
      transitSeconds: 0,
    };
    const switchOn = makeCircuit([
      { id: 'V1', kind: 'voltage-source', plus: 'v', minus: '0', dcVolts: 12 },
      { id: 'RC', kind: 'resistor', a: 'v', b: 'c', ohms: 1000 },
      { id: 'RB', kind: 'resistor', a: 'v', b: 'b', ohms: 10_000 },
      { id: 'Q1', kind: 'transistor', collector: 'c', base: 'b', emitter: '0', model },
    ]);
    const { nodes, power } = operatingPoint(switchOn);
    expect(nodes.c).toBeGreaterThan(0.01);
    expect(nodes.c).toBeLessThan(0.2);
    const supplied = 12 * ((12 - nodes.c) / 1000 + (12 - nodes.b) / 10_000);
    expect(Object.values(power).reduce((a, b) => a + b, 0)).toBeCloseTo(supplied, 9);
  });

  test('failures name the place', () => {
    const coil: Part = { id: 'L1', kind: 'inductor', a: 'in', b: '0', henries: 1 };
    expect(() => operatingPoint(makeCircuit([source, coil]))).toThrow(/“L1” closes a loop/);
    expect(() =>
      operatingPoint(
        makeCircuit([
          source,
          { id: 'C1', kind: 'capacitor', a: 'in', b: 'x', farads: 1e-9 },
          { id: 'C2', kind: 'capacitor', a: 'x', b: '0', farads: 1e-9 },
        ]),
      ),
    ).toThrow(/Net “x” floats.*at d\.c\./);
    const integrator = makeCircuit([
      source,
      { id: 'R1', kind: 'resistor', a: 'in', b: 'm', ohms: 1e4 },
      { id: 'C1', kind: 'capacitor', a: 'm', b: 'out', farads: 1e-8 },
      { id: 'A1', kind: 'op-amp', inPlus: '0', inMinus: 'm', out: 'out', model: 'ideal' },
    ]);
    expect(() => operatingPoint(integrator)).toThrow(/no definite voltage at d\.c\./);
    const stopped = AbortSignal.abort();
    expect(() =>
      transient(makeCircuit([source, { id: 'R', kind: 'resistor', a: 'in', b: '0', ohms: 1 }]), {
        untilSeconds: 1,
        stepSeconds: 1e-6,
        probes: ['in'],
        signal: stopped,
      }),
    ).toThrow(ReedError);
  });
});
