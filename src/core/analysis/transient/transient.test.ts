import fc from 'fast-check';
import { makeCircuit, type Part } from '@/core/circuit/schema';
import { compression, harmonics } from '../harmonics/harmonics';
import { level, log, source } from '../testing/circuits';
import { transient } from './transient';

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
