import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { transient } from '@/core/analysis/transient/transient';
import { makeCircuit, readCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { THERMAL_VOLTS } from '@/core/constants';
import { Player } from './player';
import { render, withWave } from './render';
import { threshold } from './threshold';
import { tune } from './tune';
import { varying } from './vary';

const fixture = (name: string): Circuit => {
  const path = join(__dirname, `../fixtures/${name}.json`);
  return readCircuit((JSON.parse(readFileSync(path, 'utf8')) as { circuit: unknown }).circuit);
};

/** Four followers of transconductors in a loop: -2.5 goes back. */
const LOOP = fixture('transient-ota-loop');
const BIAS = ['U1', 'U2', 'U3', 'U4'].map((id) => `${id}.biasAmps`);
const LADDER = fixture('transient-transistor-ladder');

describe('numbers of parts varied together', () => {
  test('are set in all of them, and in fields that the file left out', () => {
    const at = varying(LOOP, [...BIAS, 'V1.dcVolts']);
    const parts = at(3e-6).parts as unknown as Record<string, number>[];
    expect(parts.filter((p) => p.biasAmps === 3e-6)).toHaveLength(4);
    expect(parts.find((p) => (p as unknown as Part).id === 'V1')!.dcVolts).toBe(3e-6);
    expect(varying(LADDER, ['QA.betaForward'])(99).parts.find((p) => p.id === 'QA')).toHaveProperty(
      'model.betaForward',
      99,
    );
  });

  test.each([
    ['U9.biasAmps', /no part “U9”/],
    ['U1.ohms', /no number “ohms”; it has biasAmps/],
    ['U1', /names no number: give a part and its field/],
    ['U1.id', /no number “id”/],
  ])('%s is refused', (name, why) => {
    expect(() => varying(LOOP, [name])).toThrow(why);
  });

  test('a value that a field cannot have is named', () => {
    expect(() => varying(LADDER, ['RT.ohms'])(-1)).toThrow(
      /RT\.ohms cannot be -1: it must be greater than zero/,
    );
  });
});

describe('tuning', () => {
  test('finds corner, plateau, peak and Q of the loop where its closed form has them', () => {
    const [low, high] = [...tune(varying(LOOP, BIAS), 'out', [1e-6, 1e-4])];
    for (const row of [low, high]) {
      const f0 = row.value / (2 * THERMAL_VOLTS) / (2 * Math.PI * 10e-9);
      // Poles at -w0 (1 - r (1 ± j)), r = k^(1/4) / sqrt 2; at rest 1 / (1 + k).
      const r = 2.5 ** 0.25 / Math.SQRT2;
      expect(row.q! / (Math.hypot(1 - r, r) / (2 * (1 - r)))).toBeCloseTo(1, 9);
      expect(row.plateauDb).toBeCloseTo(-20 * Math.log10(3.5), 6);
      const level = (hz: number) => {
        // 1 / |(1 + jx)^4 + k|
        const [x2, x] = [(hz / f0) ** 2, hz / f0];
        return -10 * Math.log10((1 - 6 * x2 + x2 * x2 + 2.5) ** 2 + (4 * x * (1 - x2)) ** 2);
      };
      expect(level(row.halfPowerHz!)).toBeCloseTo(row.plateauDb - 10 * Math.log10(2), 6);
      expect(row.peakDb).toBeCloseTo(level(row.peakHz!), 6);
      for (const beside of [0.99, 1.01])
        expect(level(row.peakHz! * beside)).toBeLessThan(row.peakDb);
      expect(row.stable).toBe(true);
    }
    expect(high.halfPowerHz! / low.halfPowerHz!).toBeCloseTo(100, 5);
  });

  test('says where it is not stable, and asks for a source', () => {
    const at = varying(LOOP, ['E1.gain']);
    const [wild] = [...tune(at, 'out', [-5])];
    expect(wild.stable).toBe(false);
    expect(wild.q).toBeLessThan(0);
    expect(() => [...tune(varying(LADDER, ['RT.ohms']), 'l2', [18e3])]).toThrow(
      /No source has an a\.c\. amplitude/,
    );
  });
});

/** Three equal RC sections, unbuffered, from an inverting amplifier back to it: it sings at -29. */
const phaseShift = makeCircuit([
  {
    id: 'E1',
    kind: 'voltage-amplifier',
    plus: 'e',
    minus: '0',
    inPlus: 'c',
    inMinus: '0',
    gain: -1,
  },
  ...['a', 'b', 'c'].flatMap((net, k): Part[] => [
    { id: `C${k}`, kind: 'capacitor', a: ['e', 'a', 'b'][k], b: net, farads: 10e-9 },
    { id: `R${k}`, kind: 'resistor', a: net, b: '0', ohms: 10e3 },
  ]),
]);

describe('the threshold of oscillation', () => {
  test.each([
    [
      'four poles',
      LOOP,
      'E1.gain',
      -1,
      -10,
      -4,
      20e-6 / (2 * THERMAL_VOLTS) / (2 * Math.PI * 1e-8),
    ],
    [
      'three sections',
      phaseShift,
      'E1.gain',
      -5,
      -60,
      -29,
      1 / (2 * Math.PI * Math.sqrt(6) * 1e-4),
    ],
  ] as const)('of %s is that of the closed form', (_, circuit, name, from, to, value, hz) => {
    const found = threshold(varying(circuit, [name]), { from, to });
    expect(found.value! / value).toBeCloseTo(1, 9);
    expect(found.hz! / hz).toBeCloseTo(1, 9);
    expect(found.why).toBeNull();
  });

  test('is where a small ringing in time goes from dying away to growing', () => {
    const ring = (gain: number) => {
      const circuit = varying(LOOP, ['E1.gain'])(gain);
      const { probes } = transient(
        withWave(circuit, { source: 'V1', wave: 'square', hz: 1, volts: 1e-7, rate: 1 }),
        { untilSeconds: 0.05, stepSeconds: 2e-6, probes: ['out'], tolerance: 1e-6 },
      );
      const rms = (from: number, to: number) => {
        const piece = probes.out.subarray(from, to);
        const mean = piece.reduce((a, b) => a + b, 0) / piece.length;
        return Math.sqrt(piece.reduce((s, v) => s + (v - mean) ** 2, 0) / piece.length);
      };
      return rms(20_000, 25_000) / rms(5_000, 10_000);
    };
    expect(ring(-4 * 0.999)).toBeLessThan(0.95);
    expect(ring(-4 * 1.001)).toBeGreaterThan(1.05);
  });

  test('is said to be missing, and why', () => {
    const loop = varying(LOOP, ['E1.gain']);
    expect(threshold(loop, { from: -1, to: -3 }).why).toMatch(
      /No pair of poles reaches the axis: at -3\.000 one comes nearest, at .* with a Q of/,
    );
    expect(threshold(loop, { from: -5, to: -9 }).why).toMatch(/oscillates already/);
    expect(threshold(varying(LADDER, ['RT.ohms']), { from: 1e4, to: 1e5 }).why).toMatch(
      /nothing rings/,
    );
    expect(() => threshold(loop, { from: 2, to: 2 })).toThrow(/give two ends/);
  });
});

describe('rendering', () => {
  const request = {
    probe: 'out',
    source: 'V1',
    wave: 'saw',
    hz: 110,
    volts: 0.03,
    seconds: 0.05,
    rate: 48_000,
    oversample: 4,
  } as const;

  test('is every so manieth step of the engine’s run, volts as they are', () => {
    const samples = render(LOOP, request);
    expect(samples).toHaveLength(2400);
    const { probes } = transient(withWave(LOOP, request), {
      untilSeconds: 0.05,
      stepSeconds: 1 / 192_000,
      probes: ['out'],
    });
    samples.forEach((v, k) => expect(v).toBe(probes.out[4 * k]));
  });

  test('plays a recording as straight lines about the source’s rest', () => {
    const circuit = makeCircuit([
      { ...UNIT_SOURCE, dcVolts: 2 },
      { id: 'R1', kind: 'resistor', a: 'in', b: '0', ohms: 1 },
    ]);
    const wave = { rate: 1000, samples: Float64Array.of(0, 1, -1, 0) };
    const given = { ...request, wave, source: 'source', probe: 'in', volts: 0.5, seconds: 0.003 };
    const samples = render(circuit, { ...given, rate: 2000, oversample: 1 });
    expect(Array.from(samples, (v) => Number(v.toFixed(9)))).toEqual([2, 2.25, 2.5, 2, 1.5, 1.75]);
  });

  test('refuses a source that is not there, and a time without a sample', () => {
    expect(() => render(LOOP, { ...request, source: 'V7' })).toThrow(
      /no source “V7”; there are V1/,
    );
    expect(() => render(LOOP, { ...request, seconds: 1e-9 })).toThrow(/not one sample/);
  });
});

describe('a circuit that is played', () => {
  const difference = (a: Float64Array, b: Float64Array) => {
    const [mean] = [b.reduce((s, v) => s + v, 0) / b.length];
    const power = (x: (k: number) => number) => b.reduce((s, _, k) => s + x(k) ** 2, 0);
    return 10 * Math.log10(power((k) => a[k] - b[k]) / power((k) => b[k] - mean));
  };

  test.each([
    ['transconductors', LOOP, 'V1', 'out', 0.03],
    ['transistors', LADDER, 'V2', 'l2', 0.06],
  ] as const)(
    'does what the engine’s run does, to -80 dB: %s',
    (_, circuit, source, probe, volts) => {
      const seconds = 1 / 768_000;
      const steps = 7680;
      const { probes } = transient(
        withWave(circuit, { source, wave: 'sine', hz: 440, volts, rate: 1 }),
        { untilSeconds: steps * seconds, stepSeconds: seconds, probes: [probe] },
      );
      const player = new Player(circuit, { source, probe, seconds });
      expect(player.compiled).toBe(true);
      const input = Float64Array.from({ length: steps }, (_v, k) => {
        return volts * Math.sin(2 * Math.PI * 440 * (k + 1) * seconds);
      });
      const output = new Float64Array(steps);
      player.play(input, output);
      expect(difference(output, probes[probe].subarray(1))).toBeLessThan(-80);
      expect(player.lost).toBe(0);
    },
  );

  test('goes on from where it is when values change, and knows what is wired otherwise', () => {
    const player = new Player(LOOP, { source: 'V1', probe: 'out', seconds: 1 / 384_000 });
    const play = () => {
      const output = new Float64Array(3840);
      player.play(new Float64Array(3840).fill(0.01), output);
      return output;
    };
    const before = play()[3839];
    expect(before).toBeCloseTo(0.01 / 3.5, 5);
    player.set(player.valuesOf(varying(LOOP, ['E1.gain'])(-1))!);
    const after = play();
    expect(Math.abs(after[0] - before)).toBeLessThan(1e-4);
    expect(after[3839]).toBeCloseTo(0.005, 5);
    expect(player.valuesOf(LADDER)).toBeUndefined();
    expect(() => new Player(LOOP, { source: 'X', probe: 'out', seconds: 1 })).toThrow(
      /no source “X”/,
    );
  });
});
