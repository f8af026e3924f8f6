import fc from 'fast-check';
import { acResponse } from '@/core/analysis/ac/ac';
import { groupDelay } from '@/core/analysis/sensitivity/sensitivity';
import { ReedError } from '@/core/errors';
import { lowPassPrototype, prototypeMagnitude, SHAPES } from '@/core/response/prototypes';
import { topologyOf } from '@/core/topologies';
import { askSchema, bandOf, type Ask } from './ask';
import { designCircuit } from './circuit';
import { consistent, topologiesFor } from './consistent';
import { designAsk } from './design';
import { ordered } from './order-sections';
import { readAsk } from './read';
import { magnitudeOf, sectionsOf } from './sections';

const ask = (fields: object): Ask => askSchema.parse(fields);

/** Levels of a designed and solved ask, dB. */
function levels(wanted: Ask, frequenciesHz: number[]): number[] {
  const { circuit } = designCircuit(designAsk(wanted), 'ideal');
  const { re, im } = acResponse(circuit, { frequenciesHz, probes: ['out'] }).probes.out;
  return frequenciesHz.map((_, k) => 20 * Math.log10(Math.hypot(re[k], im[k])));
}

/** The prototype's own variable for a frequency of the transformed response. */
function prototypeFrequency(wanted: Ask, hz: number): number {
  if (wanted.kind === 'low-pass') return hz / wanted.edgeHz!;
  if (wanted.kind === 'high-pass') return wanted.edgeHz! / hz;
  const { lowerHz, upperHz } = bandOf(wanted);
  const away = Math.abs(hz - (lowerHz * upperHz) / hz) / (upperHz - lowerHz);
  return wanted.kind === 'band-pass' ? away : 1 / away;
}

const anyAsk = fc
  .record({
    kind: fc.constantFrom(
      'low-pass' as const,
      'high-pass' as const,
      'band-pass' as const,
      'band-stop' as const,
    ),
    shape: fc.constantFrom(...SHAPES),
    order: fc.integer({ min: 1, max: 10 }),
    hz: fc.double({ min: 2, max: 20_000, noNaN: true }),
    width: fc.double({ min: 1.25, max: 4, noNaN: true }),
    rippleDb: fc.double({ min: 0.05, max: 2, noNaN: true }),
    stopbandDb: fc.double({ min: 25, max: 80, noNaN: true }),
    sectionOrder: fc.constantFrom('lowest-q' as const, 'headroom' as const),
  })
  .map(({ hz, width, ...rest }) =>
    ask({
      ...rest,
      ...(rest.kind.endsWith('-pass') && rest.kind !== 'band-pass'
        ? { edgeHz: hz }
        : { lowerHz: hz / width, upperHz: hz * width }),
    }),
  );

describe('any shape, order and kind', () => {
  test('solved, it is the prototype through its transform within 1e-6, or it is refused in words', () => {
    let designed = 0;
    const refused: string[] = [];
    fc.assert(
      fc.property(
        anyAsk,
        fc.array(fc.double({ min: 0.2, max: 5, noNaN: true }), { minLength: 3, maxLength: 3 }),
        (wanted, at) => {
          let found;
          try {
            found = designAsk(wanted);
          } catch (error) {
            if (!(error instanceof ReedError)) throw error;
            refused.push(error.message);
            return;
          }
          designed++;
          const middle =
            wanted.edgeHz ?? Math.sqrt(bandOf(wanted).lowerHz * bandOf(wanted).upperHz);
          const hz = [...at.map((x) => x * middle), middle * 1.01];
          const { circuit } = designCircuit(found, 'ideal');
          const { re, im } = acResponse(circuit, { frequenciesHz: hz, probes: ['out'] }).probes.out;
          const prototype = lowPassPrototype({ ...wanted, order: wanted.order! });
          const wantedLevels = hz.map((f) =>
            prototypeMagnitude(prototype, prototypeFrequency(wanted, f)),
          );
          const got = hz.map((_, k) => Math.hypot(re[k], im[k]));
          // The level as a whole is the topologies' own; the shape is not.
          const scale = got[3] / wantedLevels[3];
          hz.forEach((_, k) => {
            const off = Math.abs(got[k] / scale - wantedLevels[k]);
            expect(off).toBeLessThan(1e-6 * wantedLevels[k] + 1e-9);
          });
        },
      ),
      { numRuns: 150 },
    );
    // What is refused is few, and each for a bound of its circuit or a rule of its shape.
    for (const words of refused)
      expect(words).toMatch(
        /is outside .* which this circuit can|lies outside what they can have|ask for order 2, 4, 6 or 8/,
      );
    expect(designed + refused.length).toBe(150);
    expect(refused.length).toBeLessThan(30);
  });

  test('an asked gain is the level of the pass band, whatever the sections', () => {
    const bands = { lowerHz: 800, upperHz: 1250 };
    const at = (fields: object, hz: number) => levels(ask({ gainDb: 7, ...fields }), [hz])[0];
    expect(at({ kind: 'band-pass', order: 3, ...bands }, 1000)).toBeCloseTo(7, 9);
    expect(at({ kind: 'band-stop', order: 2, ...bands }, 0.01)).toBeCloseTo(7, 6);
    expect(at({ kind: 'low-pass', order: 5, shape: 'elliptic', edgeHz: 1000 }, 0.01)).toBeCloseTo(
      7,
      6,
    );
    expect(
      at({ kind: 'high-pass', order: 3, shape: 'inverse-chebyshev', edgeHz: 1000 }, 1e8),
    ).toBeCloseTo(7, 6);
    expect(at({ kind: 'notch', centreHz: 50, q: 3 }, 0.001)).toBeCloseTo(7, 6);
  });
});

describe('kinds of one section', () => {
  test('a notch is empty at its centre and 3.01 dB down at centre over Q apart', () => {
    const { lowerHz, upperHz } = bandOf(ask({ kind: 'notch', centreHz: 50, q: 4 }));
    expect(upperHz - lowerHz).toBeCloseTo(50 / 4, 9);
    const [low, centre, high] = levels(ask({ kind: 'notch', centreHz: 50, q: 4 }), [
      lowerHz,
      50,
      upperHz,
    ]);
    expect(centre).toBeLessThan(-150);
    for (const edge of [low, high]) expect(edge).toBeCloseTo(-10 * Math.log10(2), 6);
  });

  test.each([9, -9])('a peak of %d dB has half its height at its half-width points', (gainDb) => {
    const wanted = ask({ kind: 'peak', centreHz: 700, q: 1.5, gainDb });
    const { lowerHz, upperHz } = bandOf(wanted);
    const [centre, low, high, far] = levels(wanted, [700, lowerHz, upperHz, 7e6]);
    expect(centre).toBeCloseTo(gainDb, 9);
    for (const edge of [low, high]) expect(edge).toBeCloseTo(gainDb / 2, 9);
    expect(far).toBeCloseTo(0, 5);
  });

  test('shelves reach half their height at the edge, and a tilt turns about it', () => {
    const far = [0.01, 300, 1e8];
    expect(levels(ask({ kind: 'low-shelf', edgeHz: 300, gainDb: 8 }), far)).toEqual([
      expect.closeTo(8, 5),
      expect.closeTo(4, 9),
      expect.closeTo(0, 5),
    ]);
    expect(levels(ask({ kind: 'high-shelf', edgeHz: 300, gainDb: -8, order: 2 }), far)).toEqual([
      expect.closeTo(0, 5),
      expect.closeTo(-4, 9),
      expect.closeTo(-8, 5),
    ]);
    expect(levels(ask({ kind: 'tilt', edgeHz: 300, gainDb: 6 }), far)).toEqual([
      expect.closeTo(-3, 5),
      expect.closeTo(0, 9),
      expect.closeTo(3, 5),
    ]);
  });

  test('an even-delay all-pass keeps level and, low down, its delay', () => {
    const { circuit } = designCircuit(
      designAsk(ask({ kind: 'all-pass', shape: 'bessel', order: 4, edgeHz: 1000 })),
      'ideal',
    );
    const delay = groupDelay(circuit, 'out', [1, 100, 300]);
    for (const d of delay) expect(d / delay[0]).toBeCloseTo(1, 3);
    expect(
      levels(ask({ kind: 'all-pass', shape: 'bessel', order: 4, edgeHz: 1000 }), [1000])[0],
    ).toBeCloseTo(0, 9);
  });
});

describe('limits', () => {
  const limits = { passHz: 1000, passDb: 1, stopHz: 1800, stopDb: 40 };

  test.each(['butterworth', 'chebyshev', 'inverse-chebyshev', 'elliptic'] as const)(
    'the order found for %s meets them, and one less does not',
    (shape) => {
      const wanted = ask({ kind: 'low-pass', shape, limits });
      const { order } = designAsk(wanted);
      const hz = [
        ...Array.from({ length: 80 }, (_, k) => 12.5 * (k + 1)),
        1800,
        1900,
        2500,
        5000,
        1e5,
      ];
      const found = levels(wanted, hz);
      const top = Math.max(...found.slice(0, 80));
      expect(top - Math.min(...found.slice(0, 80))).toBeLessThan(1 + 1e-6);
      expect(top - Math.max(...found.slice(80))).toBeGreaterThan(40 - 1e-6);
      const { notes } = designAsk({ ...wanted, order: order - 1 });
      expect(notes[0]).toMatch(/misses/);
    },
  );

  test('what no order meets is refused with what would help', () => {
    const narrow = { kind: 'low-pass', limits: { ...limits, stopHz: 1050 } };
    expect(() => designAsk(ask(narrow))).toThrow(/order 10 is .* more room/);
  });
});

describe('choices', () => {
  const second = { kind: 'low-pass', order: 2, edgeHz: 1000 };

  test('values start from the asked capacitor or impedance', () => {
    const [stage] = designAsk(ask({ ...second, capacitorFarads: 3.3e-9 })).stages;
    expect(stage.values.C2).toBe(3.3e-9);
    const [other] = designAsk(
      ask({ ...second, topology: 'state-variable-low-pass', impedanceOhms: 47_000 }),
    ).stages;
    expect(other.values.R3).toBe(47_000);
  });

  test('part limits are kept by starting elsewhere, or the inequality that fails is named', () => {
    const { stages } = designAsk(ask({ ...second, partLimits: { greatestFarads: 10e-9 } }));
    for (const [id, value] of Object.entries(stages[0].values))
      if (id[0] === 'C') expect(value).toBeLessThanOrEqual(10e-9);
    expect(() =>
      designAsk(ask({ ...second, partLimits: { greatestFarads: 10e-9, greatestOhms: 5000 } })),
    ).toThrow(/R1 ≤ 5.kΩ fails/);
  });

  test('a topology for another kind or order is refused with those that would do', () => {
    expect(() => designAsk(ask({ ...second, topology: 'unity-high-pass' }))).toThrow(
      /Use one of .*unity-low-pass/,
    );
    expect(() => designAsk(ask({ ...second, topology: 'leapfrog-low-pass' }))).toThrow(
      /comes in the orders 3, 4/,
    );
    expect(() => designAsk(ask({ ...second, topology: 'no-such' }))).toThrow(
      /No topology is called/,
    );
  });

  test('the best order of sections is no worse than the usual one', () => {
    const { sections } = sectionsOf(
      ask({ kind: 'low-pass', shape: 'elliptic', order: 8, edgeHz: 1000 }),
    );
    const innerPeak = (list: typeof sections) => {
      const peaks = list.map((_, n) =>
        Math.max(
          ...Array.from({ length: 300 }, (__, k) =>
            magnitudeOf(list.slice(0, n + 1), 10 * 1.02 ** k),
          ),
        ),
      );
      return Math.max(...peaks) / peaks[peaks.length - 1];
    };
    expect(innerPeak(ordered(sections, 'headroom'))).toBeLessThanOrEqual(
      innerPeak(ordered(sections, 'lowest-q')) * 1.05,
    );
  });
});

describe('one word changed', () => {
  test('every kind can follow every other, and can be designed', () => {
    const kinds = [
      'low-pass',
      'band-pass',
      'notch',
      'peak',
      'high-shelf',
      'all-pass',
      'band-stop',
      'tilt',
      'wide-band',
      'low-shelf',
      'high-pass',
    ] as const;
    for (const from of kinds)
      for (const to of kinds) {
        const first = consistent(ask({ kind: 'low-pass', order: 3, edgeHz: 500 }), { kind: from });
        const after = consistent(first, { kind: to });
        expect(askSchema.safeParse(after).success).toBe(true);
        expect(designAsk(after).stages.length).toBeGreaterThan(0);
        expect(topologiesFor(after).length).toBeGreaterThan(0);
      }
  });
});

describe('ask files', () => {
  const base = { format: 'jaunty-reed/ask', version: 1 };
  test.each([
    [{ ...base, kind: 'low-pass', order: 2 }, /edgeHz is missing/],
    [{ ...base, kind: 'band-pass', order: 2, edgeHz: 5 }, /lowerHz is missing/],
    [{ ...base, kind: 'low-pass', edgeHz: 5 }, /order is missing/],
    [{ ...base, kind: 'peak', centreHz: 5, q: 1 }, /gainDb is missing/],
    [{ ...base, kind: 'low-pass', order: 11, edgeHz: 5 }, /order must be at most 10/],
    [{ ...base, kind: 'band-pass', order: 1, lowerHz: 9, upperHz: 5 }, /upperHz must lie above/],
    [{ kind: 'low-pass' }, /format must be/],
  ])('%j is refused: %s', (document, message) => {
    expect(() => readAsk(document)).toThrow(message);
  });
});

test('a circuit with a Q of its own says so for a notch, and is not taken for a shape', () => {
  for (const topology of ['twin-t', 'twin-t-notch', 'bridged-t', 'lead-lag']) {
    const { notes, stages } = designAsk(ask({ kind: 'notch', centreHz: 50, q: 4, topology }));
    const { q } = topologyOf(topology).figures(stages[0].values);
    expect(notes.join(' ')).toMatch(/own Q is 0\.\d+.*the asked 4 needs another circuit/);
    expect(notes.join(' ')).toContain(Number(q!.toPrecision(3)).toString());
    for (const order of [1, 2])
      expect(() =>
        designAsk(ask({ kind: 'band-stop', order, centreHz: 800, q: 1, topology })),
      ).toThrow(/Q of 0\.\d+ follows from its form|use a state-variable notch/);
  }
  const wanted = ask({ kind: 'band-stop', order: 1, centreHz: 800, q: 1 });
  expect(topologiesFor(wanted).map((t) => t.id)).not.toContain('twin-t');
  const own = ask({ kind: 'notch', centreHz: 50, q: 0.25, topology: 'twin-t' });
  expect(designAsk(own).notes.join(' ')).not.toMatch(/own Q/);
});
