import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { ReedError } from '@/core/errors';
import { makeCircuit, readCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { acResponse } from './ac';

const FIXTURES = join(__dirname, '../../fixtures');

interface Reference {
  circuit: unknown;
  frequenciesHz: number[];
  probes: Record<string, { re: number[]; im: number[] }>;
  tolerance: number;
}

describe('held against independent dense solves', () => {
  const files = readdirSync(FIXTURES).filter((name) => name.startsWith('ac-'));
  test('there are reference files', () => expect(files.length).toBeGreaterThanOrEqual(6));
  test.each(files)('%s', (file) => {
    const reference = JSON.parse(readFileSync(join(FIXTURES, file), 'utf8')) as Reference;
    const nets = Object.keys(reference.probes);
    const result = acResponse(readCircuit(reference.circuit), {
      frequenciesHz: reference.frequenciesHz,
      probes: nets,
    });
    for (const net of nets) {
      const want = reference.probes[net];
      const got = result.probes[net];
      want.re.forEach((re, k) => {
        const error =
          Math.hypot(got.re[k] - re, got.im[k] - want.im[k]) / Math.hypot(re, want.im[k]);
        expect(error).toBeLessThan(reference.tolerance);
      });
    }
  });
});

/** A ladder of impedances between `in` and ground, with extra cross links: always connected. */
const ladder = fc
  .array(
    fc.tuple(
      fc.constantFrom('resistor', 'capacitor', 'inductor'),
      fc.constantFrom('series', 'shunt'),
      fc.double({ min: -1, max: 1, noNaN: true }),
    ),
    {
      minLength: 2,
      maxLength: 9,
    },
  )
  .map((rungs) => {
    const parts: Part[] = [];
    let node = 'n0';
    rungs.forEach(([kind, place, x], i) => {
      const to = place === 'series' ? `n${i + 1}` : '0';
      const id = `P${i}`;
      if (kind === 'resistor') parts.push({ id, kind, a: node, b: to, ohms: 1e4 * 10 ** x });
      else if (kind === 'capacitor')
        parts.push({ id, kind, a: node, b: to, farads: 1e-8 * 10 ** x });
      else parts.push({ id, kind, a: node, b: to, henries: 0.1 * 10 ** x, dcrOhms: 3 });
      if (place === 'series') node = to;
    });
    return { parts, last: node };
  });

const FREQUENCIES = [30, 440, 3_000, 41_000];

function between(
  a: { re: Float64Array; im: Float64Array },
  b: { re: Float64Array; im: Float64Array },
): number {
  let worst = 0;
  for (let k = 0; k < a.re.length; k++) {
    const size = Math.hypot(a.re[k], a.im[k]) + 1e-30;
    worst = Math.max(worst, Math.hypot(a.re[k] - b.re[k], a.im[k] - b.im[k]) / size);
  }
  return worst;
}

describe('properties', () => {
  test('a passive network is reciprocal: driving either end, the other answers alike', () => {
    fc.assert(
      fc.property(ladder, ({ parts, last }) => {
        const terminated: Part[] = [
          ...parts,
          { id: 'RA', kind: 'resistor', a: 'n0', b: '0', ohms: 600 },
          { id: 'RB', kind: 'resistor', a: last, b: '0', ohms: 47_000 },
        ];
        const driven = (net: string, probe: string) =>
          acResponse(
            makeCircuit([
              ...terminated,
              { id: 'I1', kind: 'current-source', from: '0', to: net, acAmps: 1 },
            ]),
            {
              frequenciesHz: FREQUENCIES,
              probes: [probe],
            },
          ).probes[probe];
        expect(between(driven('n0', last), driven(last, 'n0'))).toBeLessThan(1e-9);
      }),
    );
  });

  test('sources superpose', () => {
    fc.assert(
      fc.property(
        ladder,
        fc.double({ min: -170, max: 170, noNaN: true }),
        ({ parts, last }, degrees) => {
          const solve = (v: number, i: number) =>
            acResponse(
              makeCircuit([
                { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: v },
                { id: 'RS', kind: 'resistor', a: 'in', b: 'n0', ohms: 75 },
                ...parts,
                { id: 'RB', kind: 'resistor', a: last, b: '0', ohms: 47_000 },
                {
                  id: 'I1',
                  kind: 'current-source',
                  from: '0',
                  to: last,
                  acAmps: i,
                  acDegrees: degrees,
                },
              ]),
              { frequenciesHz: FREQUENCIES, probes: [last] },
            ).probes[last];
          const [both, one, other] = [solve(1, 2e-3), solve(1, 0), solve(0, 2e-3)];
          const sum = {
            re: one.re.map((x, k) => x + other.re[k]),
            im: one.im.map((x, k) => x + other.im[k]),
          };
          expect(between(both, sum)).toBeLessThan(1e-8);
        },
      ),
    );
  });

  test('scaling all impedances leaves a voltage ratio alone; scaling C and L moves it along frequency', () => {
    const scaled = (parts: Part[], z: number, f: number): Part[] =>
      parts.map((p) => {
        if (p.kind === 'resistor') return { ...p, ohms: p.ohms * z };
        if (p.kind === 'capacitor') return { ...p, farads: p.farads / (z * f) };
        if (p.kind === 'inductor')
          return { ...p, henries: (p.henries * z) / f, dcrOhms: (p.dcrOhms ?? 0) * z };
        return p;
      });
    fc.assert(
      fc.property(
        ladder,
        fc.double({ min: 0.01, max: 100, noNaN: true }),
        fc.double({ min: 0.01, max: 100, noNaN: true }),
        ({ parts, last }, z, f) => {
          const all: Part[] = [
            { id: 'RS', kind: 'resistor', a: 'in', b: 'n0', ohms: 75 },
            ...parts,
            { id: 'RB', kind: 'resistor', a: last, b: '0', ohms: 47_000 },
          ];
          const source: Part = {
            id: 'V1',
            kind: 'voltage-source',
            plus: 'in',
            minus: '0',
            acVolts: 1,
          };
          const plain = acResponse(makeCircuit([source, ...all]), {
            frequenciesHz: FREQUENCIES,
            probes: [last],
          });
          const moved = acResponse(makeCircuit([source, ...scaled(all, z, f)]), {
            frequenciesHz: FREQUENCIES.map((x) => x * f),
            probes: [last],
          });
          expect(between(plain.probes[last], moved.probes[last])).toBeLessThan(1e-8);
        },
      ),
    );
  });

  test('values fifteen decades apart still solve to their closed form', () => {
    const circuit = makeCircuit([
      { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
      { id: 'R1', kind: 'resistor', a: 'in', b: 'a', ohms: 1e-3 },
      { id: 'R2', kind: 'resistor', a: 'a', b: 'out', ohms: 1e12 },
      { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 1e-15 },
    ]);
    const { re, im } = acResponse(circuit, { frequenciesHz: [100], probes: ['out'] }).probes.out;
    const wrc = 2 * Math.PI * 100 * 1e12 * 1e-15;
    expect(re[0]).toBeCloseTo(1 / (1 + wrc ** 2), 12);
    expect(im[0]).toBeCloseTo(-wrc / (1 + wrc ** 2), 12);
  });
});

describe('refusals name the place and the remedy', () => {
  const source: Part = { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 };
  const load: Part = { id: 'R1', kind: 'resistor', a: 'in', b: '0', ohms: 1000 };
  const cases: [string, Circuit, RegExp][] = [
    [
      'a floating net',
      makeCircuit([source, load, { id: 'R2', kind: 'resistor', a: 'x', b: 'y', ohms: 1 }]),
      /Net “x” floats.*resistor/,
    ],
    [
      'two sources in parallel',
      makeCircuit([source, { ...source, id: 'V2' }, load]),
      /“V2” closes a loop/,
    ],
    ['no ground', makeCircuit([{ ...load, b: 'z' }]), /ground net “0”/],
    [
      'an op-amp without feedback',
      makeCircuit([
        source,
        load,
        { id: 'A1', kind: 'op-amp', inPlus: 'in', inMinus: '0', out: 'o', model: 'ideal' },
        { id: 'R3', kind: 'resistor', a: 'o', b: '0', ohms: 1 },
      ]),
      /“o”|“A1”/,
    ],
  ];
  test.each(cases)('%s', (_, circuit, words) => {
    expect(() => acResponse(circuit, { frequenciesHz: [1000], probes: ['in'] })).toThrow(words);
  });

  test('an unknown probe lists the nets there are', () => {
    expect(() =>
      acResponse(makeCircuit([source, load]), { frequenciesHz: [1], probes: ['nowhere'] }),
    ).toThrow(/no net “nowhere”.*in/);
    expect(() =>
      acResponse(makeCircuit([source, load]), { frequenciesHz: [-1], probes: ['in'] }),
    ).toThrow(ReedError);
  });

  test('documents are refused with the part and field', () => {
    const base = { format: 'jaunty-reed/circuit', version: 1, ground: '0' };
    expect(() => readCircuit({ ...base, parts: [{ ...load, ohms: -5 }] })).toThrow(
      /Part “R1” \(parts\[0\]\.ohms\): must be greater than zero/,
    );
    expect(() =>
      readCircuit({ ...base, parts: [{ id: 'R1', kind: 'resistor', a: 'x', b: '0' }] }),
    ).toThrow(/ohms\): is missing/);
    expect(() => readCircuit({ ...base, parts: [{ id: 'Q', kind: 'valve' }] })).toThrow(
      /“valve”, which is not known here/,
    );
    expect(() => readCircuit({ ...base, version: 2, parts: [load] })).toThrow(/version/);
    expect(() => readCircuit({ ...base, parts: [load, load] })).toThrow(
      /Two parts are called “R1”/,
    );
    expect(() => readCircuit('hello')).toThrow(ReedError);
  });
});
