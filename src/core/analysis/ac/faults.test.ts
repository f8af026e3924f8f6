import { makeCircuit } from '@/core/circuit/schema';
import { c, l, r } from '@/core/circuit/testing/parts';
import { noise } from '../noise/noise';
import { sensitivity } from '../sensitivity/sensitivity';
import { faultCircuit, faultDocument } from '../testing/faults';
import { acResponse } from './ac';

const FREQUENCIES = [1e-3, 1, 37, 1e3, 22e3, 1e6, 1e8];

/** Sixty-digit nodal solutions of the circuits that lost digits. */
const truth = faultDocument('ac-truth') as Record<string, { re: number[]; im: number[] }>;

describe('circuits that were got wrong', () => {
  test.each(Object.keys(truth))('%s keeps its digits', (name) => {
    const { net, fs } = faultDocument(name) as { net: string; fs: number[] };
    const { re, im } = acResponse(faultCircuit(name), { frequenciesHz: fs, probes: [net] }).probes[
      net
    ];
    truth[name].re.forEach((wanted, k) => {
      const off = Math.hypot(re[k] - wanted, im[k] - truth[name].im[k]);
      expect(off / Math.hypot(wanted, truth[name].im[k])).toBeLessThan(1e-12);
    });
  });

  test.each([1, 2, 3, 4])('ac-refused-%d is solved: nothing drives it', (n) => {
    const circuit = faultCircuit(`ac-refused-${n}`);
    const nets = ['n1', 'n3'].filter((net) => JSON.stringify(circuit).includes(`"${net}"`));
    const { probes } = acResponse(circuit, { frequenciesHz: FREQUENCIES, probes: nets });
    for (const net of nets) probes[net].re.forEach((x) => expect(x).toBe(0));
  });

  test('a resonance without loss is solved wherever it is not hit', () => {
    const circuit = faultCircuit('ac-lossless-lc');
    const f0 = 1 / (2 * Math.PI * Math.sqrt(0.01 * 1e-7));
    for (const [from, to, points] of [
      [0.1, 1e7, 50],
      [20, f0 ** 2 / 20, 400],
      [20, f0 ** 2 / 20, 401],
    ]) {
      const fs = Array.from({ length: points }, (_, k) => from * (to / from) ** (k / (points - 1)));
      const { re } = acResponse(circuit, { frequenciesHz: fs, probes: ['out'] }).probes.out;
      fs.forEach((f, k) => {
        const ratio = 1 - (f / f0) ** 2;
        if (Math.abs(ratio) > 1e-9) expect(re[k] * ratio).toBeCloseTo(1, 6);
      });
    }
  });

  test('small conductances beside large ones are not lost when the large ones cancel', () => {
    // A milliohm joins two nets that only a gigohm each ties down.
    const circuit = makeCircuit([
      { id: 'I', kind: 'current-source', from: '0', to: 'a', acAmps: 1e-9 },
      r('RJ', 'a', 'b', 1e-9),
      r('RA', 'a', '0', 1e9),
      r('RB', 'b', '0', 1e9),
      c('CB', 'b', '0', 1e-15),
      l('LB', 'b', 'x', 1e3),
      r('RX', 'x', 'b', 1e-6),
    ]);
    const { re } = acResponse(circuit, { frequenciesHz: [1], probes: ['b'] }).probes.b;
    expect(re[0]).toBeCloseTo(0.5, 9);
  });

  test.each(['sensitivity-refused-1', 'sensitivity-refused-2'])(
    '%s: the adjoint is a difference',
    (name) => {
      const circuit = faultCircuit(name);
      const net = lastNet(name);
      const found = sensitivity(circuit, { probe: net, frequenciesHz: FREQUENCIES });
      const part = circuit.parts.find((p) => p.kind === 'resistor')!;
      const level = (by: number) => {
        const parts = circuit.parts.map((p) =>
          p === part && p.kind === 'resistor' ? { ...p, ohms: p.ohms * by } : p,
        );
        const { re, im } = acResponse(
          { ...circuit, parts },
          { frequenciesHz: FREQUENCIES, probes: [net] },
        ).probes[net];
        return re.map((x, k) => 20 * Math.log10(Math.hypot(x, im[k])));
      };
      const [up, down] = [level(Math.exp(1e-4)), level(Math.exp(-1e-4))];
      const own = found.find((s) => s.part === part.id)!;
      FREQUENCIES.forEach((_, k) =>
        expect(Math.abs(own.levelDb[k] - (up[k] - down[k]) / 2e-4)).toBeLessThan(
          1e-5 * Math.max(1, Math.abs(own.levelDb[k])),
        ),
      );
    },
  );

  test.each(['noise-refused-1', 'noise-refused-2'])('%s has its noise', (name) => {
    const result = noise(faultCircuit(name), {
      probe: lastNet(name),
      frequenciesHz: FREQUENCIES,
      fromHz: 20,
      toHz: 20_000,
    });
    result.spots.forEach(({ voltsPerRootHz }) => expect(voltsPerRootHz).toBeGreaterThan(0));
    expect(result.rmsVolts).toBeGreaterThan(0);
  });
});

/** A net that the sources reach: the last one that `ac` finds a voltage on. */
function lastNet(name: string): string {
  const circuit = faultCircuit(name);
  const nets = [
    ...new Set(
      JSON.stringify(circuit)
        .match(/"(n|o|e)\d+"/g)!
        .map((n) => n.slice(1, -1)),
    ),
  ];
  const { probes } = acResponse(circuit, { frequenciesHz: [1e3], probes: nets });
  return nets.reverse().find((net) => Math.hypot(probes[net].re[0], probes[net].im[0]) > 0)!;
}
