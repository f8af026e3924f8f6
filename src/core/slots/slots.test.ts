import fc from 'fast-check';
import { acResponse } from '@/core/analysis/ac/ac';
import { makeCircuit, type Part } from '@/core/circuit/schema';
import { readNets } from '@/core/drawing/nets';
import { lowPassPrototype, prototypeMagnitude } from '@/core/response/prototypes';
import { evenly } from '@/core/speaker/tune/measure';
import { instantiate } from '@/core/topologies/instantiate';
import { slotKindOf, type Slot } from '.';
import { armsDrawing } from './arms';
import { ALIGNMENTS, hasOrder } from './section';

const SOURCE: Part = { id: 'V', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 };

/** The parts of a slot between `in` and `out`, as they are drawn. */
function partsOf(slot: Slot): Part[] {
  const kind = slotKindOf(slot);
  const values = kind.values(slot);
  const drawing = armsDrawing(kind.arms(slot));
  // What lies across only is heard where it is fed.
  const passing = ['nothing is drawn at net out'];
  expect(readNets(drawing).faults.filter((f) => !passing.includes(f))).toEqual([]);
  return instantiate(drawing, {
    dataOf: ({ id }) => ({ value: values[id] }),
    partName: (id) => id,
    netName: (net) => net,
  });
}

/** Magnitude of what arrives behind a slot, with what is hung before and behind it. */
function response(
  slot: Slot,
  behind: readonly Part[],
  hz: Float64Array,
  before?: Part,
): Float64Array {
  const passes = readNets(armsDrawing(slotKindOf(slot).arms(slot))).ports.some(
    (p) => p.flow === 'out' && p.net === 'in',
  );
  const out = passes ? 'in' : 'out';
  const source: Part = before ? ({ ...SOURCE, plus: 'amp' } as Part) : SOURCE;
  const { probes } = acResponse(
    makeCircuit([
      source,
      ...(before ? [before] : []),
      ...partsOf(slot),
      ...behind.map((p) => ({ ...p, a: out }) as Part),
    ]),
    { frequenciesHz: hz, probes: [out] },
  );
  return probes[out].re.map((re, k) => Math.hypot(re, probes[out].im[k]));
}

const load = (ohms: number): Part => ({ id: 'load', kind: 'resistor', a: 'out', b: '0', ohms });
const dB = (x: number) => 20 * Math.log10(x);

describe.each(
  ALIGNMENTS.flatMap((alignment) => [1, 2, 3, 4].map((order) => [alignment, order] as const)),
)('%s sections of order %i', (alignment, order) => {
  const common = { is: 'section' as const, alignment, order, ohms: 6 };
  if (!hasOrder(alignment, order)) {
    test('are refused in words', () =>
      expect(() =>
        slotKindOf({ is: 'section' }).values({ ...common, pass: 'low', hz: 1000 } as Slot),
      ).toThrow(/There is no .* section of order/));
    return;
  }
  const hz = evenly(50, 20_000, 60);
  const low = response({ ...common, pass: 'low', hz: 1000 }, [load(6)], hz);
  const high = response({ ...common, pass: 'high', hz: 1000 }, [load(6)], hz);

  test('a high-pass mirrors its low-pass', () =>
    low.forEach((m, k) => {
      const mirrored = response(
        { ...common, pass: 'high', hz: 1000 },
        [load(6)],
        Float64Array.of(1e6 / hz[k]),
      );
      expect(mirrored[0] / m).toBeCloseTo(1, 8);
    }));

  if (alignment !== 'between')
    test('have the magnitude of their shape', () => {
      const prototype = lowPassPrototype({ shape: alignment, order });
      low.forEach((m, k) =>
        expect(
          m / (prototypeMagnitude(prototype, hz[k] / 1000) / prototypeMagnitude(prototype, 0)),
        ).toBeCloseTo(1, 7),
      );
    });

  if (alignment === 'linkwitz-riley' || alignment === 'butterworth')
    test('powers of low and high add up as the books have it', () => {
      low.forEach((m, k) => {
        const sum = alignment === 'butterworth' ? m ** 2 + high[k] ** 2 : (m + high[k]) ** 2;
        // Linkwitz-Riley ways are in phase and add as they are; Butterworth ways add as powers.
        expect(Math.abs(dB(Math.sqrt(sum)))).toBeLessThan(0.001);
      });
    });
});

test('a band-pass section is flat in its middle, and 3 dB down where it is said to end', () => {
  const slot: Slot = {
    is: 'section',
    pass: 'band',
    alignment: 'butterworth',
    order: 3,
    ohms: 8,
    lowerHz: 400,
    upperHz: 3000,
  };
  const [low, middle, high] = response(
    slot,
    [load(8)],
    Float64Array.of(400, Math.sqrt(400 * 3000), 3000),
  );
  expect(dB(middle)).toBeCloseTo(0, 6);
  expect(dB(low)).toBeCloseTo(-3.0103, 4);
  expect(dB(high)).toBeCloseTo(-3.0103, 4);
});

test('a pad takes what it is asked for and keeps the load; a lift gives back so much at its frequency', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 20, noNaN: true }),
      fc.double({ min: 2, max: 30, noNaN: true }),
      fc.double({ min: 0.1, max: 0.9, noNaN: true }),
      (downDb, ohms, share) => {
        const plain: Slot = { is: 'pad', downDb, ohms, adjustable: false };
        const { R1, R2 } = slotKindOf(plain).values(plain);
        expect(R1 + (R2 * ohms) / (R2 + ohms)).toBeCloseTo(ohms, 9);
        expect(dB(response(plain, [load(ohms)], Float64Array.of(1000))[0])).toBeCloseTo(-downDb, 9);
        const lifted: Slot = { ...plain, lift: { hz: 9000, db: share * downDb } };
        const [below, at] = response(lifted, [load(ohms)], Float64Array.of(1, 9000));
        expect(dB(at / below)).toBeCloseTo(share * downDb, 3);
      },
    ),
    { numRuns: 40 },
  );
  expect(() =>
    slotKindOf({ is: 'pad' }).values({
      is: 'pad',
      downDb: 3,
      ohms: 8,
      lift: { hz: 1000, db: 4 },
    } as Slot),
  ).toThrow(/cannot give 4 dB back/);
});

test('traps take what they are asked for, as wide as they are asked for', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 12, noNaN: true }),
      fc.double({ min: 0.2, max: 3, noNaN: true }),
      fc.double({ min: 2, max: 20, noNaN: true }),
      (downDb, octaves, ohms) => {
        const edges = Float64Array.of(1000, 1000 * 2 ** (octaves / 2), 1000 * 2 ** (-octaves / 2));
        const inLine: Slot = { is: 'trap-in-line', hz: 1000, downDb, octaves, loadOhms: ohms };
        const [middle, above, below] = response(inLine, [load(ohms)], edges).map(dB);
        expect(middle).toBeCloseTo(-downDb, 6);
        expect(above).toBeCloseTo(-downDb / 2, 6);
        expect(below).toBeCloseTo(-downDb / 2, 6);
        const across: Slot = { is: 'trap-across', hz: 1000, downDb, octaves, sourceOhms: ohms };
        const source: Part = { id: 'S', kind: 'resistor', a: 'amp', b: 'in', ohms };
        const [deep, up, down] = response(across, [], edges, source).map(dB);
        expect(deep).toBeCloseTo(-downDb, 6);
        expect(up).toBeCloseTo(-downDb / 2, 6);
        expect(down).toBeCloseTo(-downDb / 2, 6);
      },
    ),
    { numRuns: 40 },
  );
});

test('what flattens a driver makes a resistance of it', () => {
  const hz = evenly(10, 20_000, 50);
  const impedance = (slot: Slot, driver: Part[]) => {
    const { currents } = acResponse(makeCircuit([SOURCE, ...partsOf(slot), ...driver]), {
      frequenciesHz: hz,
      probes: [],
      currents: ['V'],
    });
    return currents.V.re.map((re, k) => 1 / Math.hypot(re, currents.V.im[k]));
  };
  const [reOhms, leHenries] = [5.6, 0.7e-3];
  const re: Part = { id: 're', kind: 'resistor', a: 'in', b: 'm', ohms: reOhms };
  const coil: Part = { id: 'le', kind: 'inductor', a: 'm', b: '0', henries: leHenries };
  for (const z of impedance({ is: 'flatten-coil', reOhms, leHenries }, [re, coil]))
    expect(z).toBeCloseTo(reOhms, 8);
  const [f, qms, qes] = [60, 4, 0.5];
  const w = 2 * Math.PI * f;
  const moving: Part[] = [
    { id: 'c', kind: 'capacitor', a: 'm', b: '0', farads: qes / (w * reOhms) },
    { id: 'l', kind: 'inductor', a: 'm', b: '0', henries: reOhms / (w * qes) },
    { id: 'r', kind: 'resistor', a: 'm', b: '0', ohms: (reOhms * qms) / qes },
  ];
  for (const z of impedance({ is: 'flatten-peak', reOhms, hz: f, qms, qes }, [re, ...moving]))
    expect(z).toBeCloseTo(reOhms, 8);
});
