import fc from 'fast-check';
import { makeCircuit, type Part } from '@/core/circuit/schema';
import { c, r } from '@/core/circuit/testing/parts';
import { AcAnalysis, acResponse } from './ac';

/** A unity-gain stage behind a divider, with a coil hung onto its output. */
const parts = (ohms: number): Part[] => [
  { id: 'V', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
  r('R1', 'in', 'x', ohms),
  r('R2', 'x', 'p', 2 * ohms),
  c('C1', 'x', 'out', 1e-8),
  c('C2', 'p', '0', 4e-9),
  {
    id: 'A',
    kind: 'op-amp',
    inPlus: 'p',
    inMinus: 'out',
    out: 'out',
    model: { gainBandwidthHz: 1e6, dcGainDb: 100, outputOhms: 80 },
  },
  { id: 'L', kind: 'inductor', a: 'out', b: 'y', henries: 0.05 },
  r('R3', 'y', '0', 470),
];

test('a unit current into any net, at any frequency, does what a current source does', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('x', 'p', 'out', 'y'),
      fc.double({ min: 1, max: 5, noNaN: true }).map((x) => 10 ** x),
      fc.constantFrom(1e3, 1e4, 1e5),
      (net, hz, ohms) => {
        const circuit = makeCircuit(parts(ohms));
        const analysis = new AcAnalysis(circuit);
        const point = analysis.at(hz);
        const row = analysis.unknownOf(net);
        const still = parts(ohms).map((p) =>
          p.kind === 'voltage-source' ? { ...p, acVolts: 0 } : p,
        );
        const test: Part = { id: 'I', kind: 'current-source', from: '0', to: net, acAmps: 1 };
        const nets = ['x', 'p', 'out', 'y'];
        const wanted = acResponse(makeCircuit([...still, test]), {
          frequenciesHz: [hz],
          probes: nets,
        });
        const x = point.unitInto(row);
        for (const probe of nets) {
          const at = analysis.unknownOf(probe);
          const { re, im } = wanted.probes[probe];
          const size = Math.hypot(re[0], im[0]) + 1e-9;
          expect(Math.hypot(x.re[at] - re[0], x.im[at] - im[0]) / size).toBeLessThan(1e-9);
        }
        // The transposed solution says the same of the one net.
        const y = point.transfersTo(row);
        expect(Math.hypot(y.re[row] - x.re[row], y.im[row] - x.im[row])).toBeLessThan(
          1e-9 * (Math.hypot(x.re[row], x.im[row]) + 1e-9),
        );
        // What everything draws from the net is what was put in.
        const all = point.drawn(row, x, () => true);
        expect(all.re).toBeCloseTo(1, 9);
        expect(all.im).toBeCloseTo(0, 9);
      },
    ),
    { seed: 3, numRuns: 60 },
  );
});

test('where a planned pivot cancels, the careful solver answers in its place', () => {
  // A trap exactly on its frequency: the branch is a short there.
  const [L, C] = [0.01, 1e-6];
  const hz = 1 / (2 * Math.PI * Math.sqrt(L * C));
  const circuit = makeCircuit([
    { id: 'V', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
    r('R', 'in', 'out', 100),
    { id: 'L', kind: 'inductor', a: 'out', b: 'm', henries: L },
    c('C', 'm', '0', C),
  ]);
  const analysis = new AcAnalysis(circuit);
  const out = analysis.unknownOf('out');
  const point = analysis.at(hz);
  expect(Math.hypot(point.x.re[out], point.x.im[out])).toBeLessThan(1e-9);
  expect(Math.hypot(point.unitInto(out).re[out], point.transfersTo(out).im[out])).toBeLessThan(
    1e-6,
  );
});
