import { AcAnalysis } from '@/core/analysis/ac/ac';
import { Adjoint } from '@/core/analysis/sensitivity/adjoint';
import { noiseOf } from '@/core/analysis/noise/noise';
import { circuitSchema, type Circuit } from './schema';
import { valueOf, valuesOfAlike, withValue } from './values';
import { EVERY_KIND } from './testing/every-kind';

const HZ = Float64Array.of(30, 1000, 40_000);

/** All that an analysis says of a net: response, noise, where the devices rest. */
function said(analysis: AcAnalysis, net: string) {
  const { re, im } = analysis.voltage(net, HZ);
  const { spots } = noiseOf(analysis, { probe: net, frequenciesHz: HZ, fromHz: 20, toHz: 2e4 });
  const rest = analysis.linearised?.x ?? [];
  return [...re, ...im, ...spots.map((s) => s.voltsPerRootHz), ...rest];
}

function expectClose(found: readonly number[], wanted: readonly number[]) {
  expect(found).toHaveLength(wanted.length);
  found.forEach((x, i) =>
    expect(Math.abs(x - wanted[i])).toBeLessThan(1e-8 * Math.abs(wanted[i]) + 1e-13),
  );
}

const changed = (circuit: Circuit, id: string, name: string, by: number): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p) => {
    if (p.id !== id) return p;
    return withValue(p, name, valueOf(p, name) * by);
  }),
});
describe.each(Object.entries(EVERY_KIND))(
  'values of %s',
  (_, { circuit: raw, net, still = [] }) => {
    const circuit = circuitSchema.parse(raw);
    const nominal = new AcAnalysis(circuit);
    const own = nominal.system.parameters.filter((p) => !p.by);

    test('each, changed, gives what a fresh compilation gives', () => {
      expect(own.length).toBeGreaterThan(0);
      for (const { part, name } of own) {
        const other = changed(circuit, part, name, 1.07);
        const fresh = said(new AcAnalysis(other), net);
        const updated = new AcAnalysis(nominal);
        expect(updated.take(other)).toBe(true);
        expectClose(said(updated, net), fresh);
        // And back again, from where it is now.
        expect(updated.take(circuit)).toBe(true);
        expectClose(said(updated, net), said(nominal, net));
      }
    });

    test('each does to the level what its sensitivity says', () => {
      const adjoint = new Adjoint(nominal, net);
      for (const row of adjoint.parts(HZ)) {
        const [above, below] = [1 + 1e-4, 1 - 1e-4].map((by) => {
          const { re, im } = new AcAnalysis(changed(circuit, row.part, row.parameter, by)).voltage(
            net,
            HZ,
          );
          return re.map((x, k) => 20 * Math.log10(Math.hypot(x, im[k])));
        });
        row.levelDb.forEach((db, k) => {
          const wanted = (above[k] - below[k]) / (Math.log(1 + 1e-4) - Math.log(1 - 1e-4));
          expect(Math.abs(db - wanted)).toBeLessThan(2e-5 * Math.abs(wanted) + 2e-5);
        });
      }
      const moving = new Set(adjoint.parts(HZ).map((r) => `${r.part} ${r.parameter}`));
      for (const name of still) expect(moving).not.toContain(name);
    });
  },
);

test('another wiring, kind, model or nought is no other value', () => {
  const circuit = circuitSchema.parse(EVERY_KIND['op-amp'].circuit);
  const { system } = new AcAnalysis(circuit);
  const alike = (change: (parts: Circuit['parts']) => Circuit['parts']) =>
    valuesOfAlike(system, { ...circuit, parts: change(circuit.parts) });
  expect(alike((parts) => parts)).toBeDefined();
  expect(alike((parts) => parts.slice(1))).toBeUndefined();
  const first = (change: object) => (parts: Circuit['parts']) =>
    parts.map((p) => (p.kind === 'resistor' ? { ...p, ...change } : p));
  expect(alike(first({ ohms: 4700 }))).toBeDefined();
  expect(alike(first({ note: 'by the window' }))).toBeUndefined();
  expect(alike(first({ a: 'elsewhere' }))).toBeUndefined();
  expect(alike(first({ ohms: 0 }))).toBeUndefined();
});
