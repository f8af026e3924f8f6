import fc from 'fast-check';
import { THERMAL_VOLTS } from '@/core/constants';
import { ReedError } from '@/core/errors';
import { makeCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { acResponse } from './ac/ac';
import { operatingPoint } from './dc/operating-point';
import { compression, harmonics } from './harmonics/harmonics';
import { noise } from './noise/noise';
import { polesAndZeros } from './poles/poles';
import { groupDelay, readingSensitivity, sensitivity } from './sensitivity/sensitivity';
import { transient } from './transient/transient';
import { impedanceAt, loopView } from './two-port/two-port';

const OP_AMP = {
  gainBandwidthHz: 3e6,
  dcGainDb: 100,
  outputOhms: 100,
  inputVoltageNoise: 8e-9,
  inputCurrentNoise: 1e-12,
};
const source: Part = { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 };

/** A second-order low-pass with gain around a one-pole op-amp, values drawn. */
const filters = fc
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

function log(min: number, max: number): fc.Arbitrary<number> {
  return fc.double({ min: Math.log(min), max: Math.log(max), noNaN: true }).map(Math.exp);
}

const level = (circuit: Circuit, hz: number) => {
  const { re, im } = acResponse(circuit, { frequenciesHz: [hz], probes: ['out'] }).probes.out;
  return {
    db: 20 * Math.log10(Math.hypot(re[0], im[0])),
    degrees: (Math.atan2(im[0], re[0]) * 180) / Math.PI,
    re: re[0],
    im: im[0],
  };
};

const scaledPart = (circuit: Circuit, id: string, factor: number): Circuit => ({
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
});

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

describe('over time', () => {
  test('a small sine in time is the small-signal response', () => {
    fc.assert(
      fc.property(log(200, 5000), (hz) => {
        const parts: Part[] = [
          { id: 'R1', kind: 'resistor', a: 'in', b: 'a', ohms: 4700 },
          {
            id: 'D1',
            kind: 'diode',
            anode: 'a',
            cathode: 'out',
            model: {
              saturationAmps: 1e-9,
              emissionCoefficient: 1.8,
              junctionFarads: 1e-11,
              transitSeconds: 0,
            },
          },
          { id: 'R2', kind: 'resistor', a: 'out', b: '0', ohms: 2200 },
          { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 4.7e-8 },
        ];
        const drive = (v: Part) => makeCircuit([v, ...parts]);
        const small = level(drive({ ...source, dcVolts: 3 }), hz);
        const result = harmonics(drive({ ...source, dcVolts: 3 }), {
          probe: 'out',
          frequencyHz: hz,
          amplitude: 1e-3,
        });
        expect(result.volts[0] / 1e-3 / 10 ** (small.db / 20)).toBeCloseTo(1, 3);
        expect(result.thd).toBeLessThan(1e-3);
      }),
      { numRuns: 5 },
    );
  });

  test('the free grid meets the closed form of a charging capacitor, and hits the step exactly', () => {
    const circuit = makeCircuit([
      {
        id: 'V1',
        kind: 'voltage-source',
        plus: 'in',
        minus: '0',
        waveform: { shape: 'step', lowVolts: 0, highVolts: 1, delaySeconds: 1e-4, riseSeconds: 0 },
      },
      { id: 'R', kind: 'resistor', a: 'in', b: 'out', ohms: 1e4 },
      { id: 'C', kind: 'capacitor', a: 'out', b: '0', farads: 1e-8 },
    ]);
    const { timesSeconds, probes } = transient(circuit, { untilSeconds: 1e-3, probes: ['out'] });
    expect(timesSeconds.some((t) => Math.abs(t - 1e-4) < 1e-15)).toBe(true);
    timesSeconds.forEach((t, k) =>
      expect(probes.out[k]).toBeCloseTo(t <= 1e-4 ? 0 : 1 - Math.exp(-(t - 1e-4) / 1e-4), 3),
    );
    expect(timesSeconds.length).toBeLessThan(400);
  });

  test('passive parts make no energy: after a burst the stored energy only falls', () => {
    fc.assert(
      fc.property(log(1, 1000), log(1e-9, 1e-6), log(1e-4, 1e-1), (ohms, farads, henries) => {
        const circuit = makeCircuit([
          {
            id: 'V1',
            kind: 'voltage-source',
            plus: 'in',
            minus: '0',
            waveform: {
              shape: 'square',
              lowVolts: 0,
              highVolts: 1,
              frequencyHz: 1e-3,
              duty: 1e-6,
              delaySeconds: 0,
              riseSeconds: 0,
            },
          },
          { id: 'R', kind: 'resistor', a: 'in', b: 'x', ohms },
          { id: 'L', kind: 'inductor', a: 'x', b: 'out', henries },
          { id: 'C', kind: 'capacitor', a: 'out', b: '0', farads },
        ]);
        const step = Math.sqrt(henries * farads) / 40;
        const { probes } = transient(circuit, {
          untilSeconds: 400 * step,
          stepSeconds: step,
          probes: ['out', 'x', 'in'],
        });
        const energy = (k: number) => {
          const current = (probes.in[k] - probes.x[k]) / ohms;
          return (farads * probes.out[k] ** 2 + henries * current ** 2) / 2;
        };
        const off = probes.in.findIndex((v, k) => k > 1 && v === 0);
        if (off > 0)
          for (let k = off + 2; k < probes.out.length; k++)
            expect(energy(k)).toBeLessThanOrEqual(energy(k - 1) * (1 + 1e-6) + 1e-18);
      }),
      { numRuns: 20 },
    );
  });

  test('an op-amp slews at its rate and stops at its rails', () => {
    const follower = (volts: number) =>
      makeCircuit([
        {
          id: 'V1',
          kind: 'voltage-source',
          plus: 'in',
          minus: '0',
          acVolts: 1,
          waveform: {
            shape: 'step',
            lowVolts: 0,
            highVolts: volts,
            delaySeconds: 0,
            riseSeconds: 0,
          },
        },
        {
          id: 'A1',
          kind: 'op-amp',
          inPlus: 'in',
          inMinus: 'out',
          out: 'out',
          model: {
            gainBandwidthHz: 3e6,
            dcGainDb: 100,
            slewVoltsPerSecond: 1e6,
            supply: { plusVolts: 12, minusVolts: -12 },
            headroomVolts: 1.5,
          },
        },
        { id: 'RL', kind: 'resistor', a: 'out', b: '0', ohms: 1e4 },
      ]);
    const { probes } = transient(follower(5), {
      untilSeconds: 6e-6,
      stepSeconds: 2e-8,
      probes: ['out'],
    });
    expect((probes.out[200] - probes.out[100]) / (100 * 2e-8)).toBeCloseTo(1e6, -4);
    const over = transient(follower(20), { untilSeconds: 4e-5, stepSeconds: 1e-7, probes: ['out'] })
      .probes.out;
    expect(over[over.length - 1]).toBeGreaterThan(10.3);
    expect(over[over.length - 1]).toBeLessThan(10.9);
    const { steps, first } = compression(follower(0), {
      probe: 'out',
      frequencyHz: 1000,
      amplitudes: [0.1, 5, 20],
    });
    expect(steps[1].compressionDb).toBeLessThan(0.1);
    expect(first).toEqual({ net: 'out', amplitude: 20 });
  });
});

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
