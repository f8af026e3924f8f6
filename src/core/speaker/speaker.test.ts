import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { acResponse } from '@/core/analysis/ac/ac';
import { makeCircuit, type Part } from '@/core/circuit/schema';
import { size } from '@/core/numeric/complex';
import { AIR_DENSITY } from './air';
import { readSpeaker, type SpeakerDocument } from './document';
import type { UnitFigures } from './figures';
import { mechanicsOf } from './mechanics';
import { SolvedSpeaker } from './solved-speaker';
import { evenly } from './tune/measure';
import { unitAt } from './unit-response';
import { unitParts } from './unit-parts';

const FIXTURES = join(__dirname, '../fixtures');
const fixture = (name: string) =>
  JSON.parse(readFileSync(join(FIXTURES, `${name}.json`), 'utf8')) as {
    document: { drivers: object[] } & Record<string, unknown>;
    frequenciesHz: number[];
    impedanceOhms: ComplexTrace;
    sumPascals: ComplexTrace;
    waysPascals: Record<string, ComplexTrace>;
    tolerance: number;
  };

/** Largest relative difference, point by point. */
const apart = (a: ComplexTrace, b: { re: ArrayLike<number>; im: ArrayLike<number> }) =>
  Math.max(
    ...Array.from(
      a.re,
      (re, k) => Math.hypot(re - b.re[k], a.im[k] - b.im[k]) / Math.hypot(b.re[k], b.im[k]),
    ),
  );

const solve = (document: SpeakerDocument, frequenciesHz: Float64Array) => {
  const speaker = new SolvedSpeaker(document);
  const electrical = speaker.electrical(frequenciesHz);
  return { impedance: speaker.impedance(electrical), ...speaker.sound(electrical) };
};

test.each(['speaker-closed-box', 'speaker-vented-box', 'speaker-two-way'])(
  '%s is met within its tolerance',
  (name) => {
    const { document, frequenciesHz, impedanceOhms, sumPascals, waysPascals, tolerance } =
      fixture(name);
    const read = readSpeaker(document);
    const { impedance, sum, ways } = solve(read, Float64Array.from(frequenciesHz));
    expect(apart(impedance, impedanceOhms)).toBeLessThan(tolerance);
    expect(apart(sum, sumPascals)).toBeLessThan(tolerance);
    read.drivers.forEach(({ id }, i) =>
      expect(apart(ways[i], waysPascals[id])).toBeLessThan(tolerance),
    );
  },
);

const anyFigures: fc.Arbitrary<UnitFigures> = fc.record({
  fsHz: fc.double({ min: 15, max: 2000, noNaN: true }),
  qms: fc.double({ min: 0.5, max: 15, noNaN: true }),
  qes: fc.double({ min: 0.15, max: 3, noNaN: true }),
  vasLitres: fc.double({ min: 0.01, max: 300, noNaN: true }),
  reOhms: fc.double({ min: 2, max: 15, noNaN: true }),
  leHenries: fc.double({ min: 0, max: 3e-3, noNaN: true }),
  sdSquareCentimetres: fc.double({ min: 3, max: 1000, noNaN: true }),
  mounting: fc.oneof(
    fc.constant({ kind: 'open' as const }),
    fc.record({
      kind: fc.constant('closed' as const),
      litres: fc.double({ min: 0.5, max: 100, noNaN: true }),
    }),
    fc.record({
      kind: fc.constant('vented' as const),
      litres: fc.double({ min: 1, max: 100, noNaN: true }),
      tuningHz: fc.double({ min: 20, max: 100, noNaN: true }),
      leakQ: fc.option(fc.double({ min: 3, max: 50, noNaN: true }), { nil: undefined }),
    }),
  ),
  lossyInductance: fc.option(
    fc.record({
      henries: fc.double({ min: 1e-5, max: 2e-3, noNaN: true }),
      ohms: fc.double({ min: 1, max: 50, noNaN: true }),
    }),
    { nil: undefined },
  ),
});

test('the circuit of a unit has the impedance of its equations, and its inner voltage sounds', () => {
  fc.assert(
    fc.property(anyFigures, (figures) => {
      const hz = evenly(10, 20_000, 40);
      const source: Part = { id: 'V', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 };
      const parts = unitParts(figures, { id: 'u', plus: 'in', minus: '0' });
      const { probes, currents } = acResponse(makeCircuit([source, ...parts]), {
        frequenciesHz: hz,
        probes: ['u.moving'],
        currents: ['V'],
      });
      const { area, force } = mechanicsOf(figures);
      hz.forEach((f, k) => {
        const { impedanceOhms, velocity, pascals } = unitAt(figures, f);
        const z = 1 / Math.hypot(currents.V.re[k], currents.V.im[k]);
        expect(z / size(impedanceOhms)).toBeCloseTo(1, 7);
        // v = V/(Bl) of what moves; with no vent, that is what sounds.
        const moving = Math.hypot(probes['u.moving'].re[k], probes['u.moving'].im[k]);
        expect(moving / force / size(velocity)).toBeCloseTo(1, 7);
        if (figures.mounting.kind !== 'vented')
          expect(size(pascals)).toBeCloseTo(AIR_DENSITY * f * area * size(velocity), 9);
      });
    }),
    { numRuns: 60 },
  );
});

const arg = ({ re, im }: { re: number; im: number }) => (Math.atan2(im, re) * 180) / Math.PI;

/** The same speaker, of whose units nothing is known but tables. */
function asMeasured(document: SpeakerDocument, hz: number[], phased: boolean): SpeakerDocument {
  return readSpeaker({
    ...document,
    drivers: document.drivers.map(({ id, place, directivity, sdSquareCentimetres, ...unit }) => {
      const points = hz.map((f) => unitAt({ ...unit, sdSquareCentimetres } as UnitFigures, f));
      return {
        id,
        place,
        directivity,
        sdSquareCentimetres,
        measured: {
          impedance: {
            frequenciesHz: hz,
            ohms: points.map((p) => size(p.impedanceOhms)),
            ...(phased ? { phaseDegrees: points.map((p) => arg(p.impedanceOhms)) } : {}),
          },
          level: {
            frequenciesHz: hz,
            levelDb: points.map((p) => 20 * Math.log10((size(p.pascals) * 2.83) / 20e-6)),
            phaseDegrees: points.map((p) => arg(p.pascals)),
          },
        },
      };
    }),
  });
}

test.each(['speaker-closed-box', 'speaker-vented-box', 'speaker-two-way'])(
  '%s: tables of its units say the same as their figures',
  (name) => {
    const document = readSpeaker(fixture(name).document);
    const hz = Array.from(evenly(10, 40_000, 400));
    const asked = Float64Array.from(hz.filter((_, k) => k % 7 === 0));
    const known = solve(document, asked);
    const phased = solve(asMeasured(document, hz, true), asked);
    expect(apart(phased.impedance, known.impedance)).toBeLessThan(1e-9);
    expect(apart(phased.sum, known.sum)).toBeLessThan(1e-9);
    // A phase that was not measured is found again from the sizes alone.
    const found = solve(asMeasured(document, hz, false), asked);
    expect(apart(found.impedance, known.impedance)).toBeLessThan(0.02);
    expect(apart(found.sum, known.sum)).toBeLessThan(0.02);
  },
);

test('far away ways turn as one: a listener turned keeps the distance, and a piston beams', () => {
  const { document } = fixture('speaker-two-way');
  const read = readSpeaker(document);
  const speaker = new SolvedSpeaker(read);
  const electrical = speaker.electrical(evenly(100, 20_000, 30));
  const ahead = speaker.sound(electrical);
  const up = speaker.sound(electrical, { up: 30, side: 0 });
  const last = ahead.sum.re.length - 1;
  const levelOf = (way: ComplexTrace, k: number) => Math.hypot(way.re[k], way.im[k]);
  // The tweeter is a small piston: as loud at 100 Hz, less at 20 kHz.
  expect(levelOf(up.ways[1], 0) / levelOf(ahead.ways[1], 0)).toBeCloseTo(1, 1);
  expect(levelOf(up.ways[1], last)).toBeLessThan(0.8 * levelOf(ahead.ways[1], last));
  // To the left is as to the right of units above each other.
  const left = speaker.sound(electrical, { up: 0, side: -40 });
  const right = speaker.sound(electrical, { up: 0, side: 40 });
  expect(apart(left.sum, right.sum)).toBeLessThan(1e-12);
});

test('what is wrong with a document is said in a sentence that names the place', () => {
  const { document } = fixture('speaker-two-way');
  const cases: [Record<string, unknown>, RegExp][] = [
    [{ drivers: [document.drivers[0], document.drivers[0]] }, /two drivers are called “bass”/],
    [{ connections: [] }, /the driver “bass” is not connected/],
    [
      { connections: [{ driver: 'none', plus: 'w', minus: '0' }] },
      /not connected|no driver “none”/,
    ],
    [
      { drivers: [{ ...document.drivers[0], qes: -1 }, document.drivers[1]] },
      /drivers\[0\]\.qes.*at least 0\.01/,
    ],
    [
      { drivers: [{ ...document.drivers[0], fsHz: undefined }, document.drivers[1]] },
      /fsHz.*missing/,
    ],
    [{ target: { fromHz: 200, toHz: 100, withinDb: 1 } }, /target\.toHz.*above the lower/],
    [{ target: { fromHz: 200, toHz: 900, withinDb: 1, free: ['X9'] } }, /no part “X9”/],
    [{ listen: { xMetres: 0, yMetres: 0.09, zMetres: 0 } }, /is where the driver “top” is/],
  ];
  for (const [change, words] of cases)
    expect(() => readSpeaker({ ...document, ...change })).toThrow(words);
  const hanging = readSpeaker({
    ...document,
    connections: [
      { driver: 'bass', plus: 'nowhere', minus: '0' },
      { driver: 'top', plus: 'b', minus: '0' },
    ],
  });
  expect(() => new SolvedSpeaker(hanging)).toThrow(/hangs on net “nowhere”, which no part/);
});
