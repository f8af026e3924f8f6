import fc from 'fast-check';
import { ReedError } from '@/core/errors';
import { demoDrivers } from '@/core/demo/drivers';
import { gate } from '@/core/sheet/gate';
import { withDrivers } from '@/core/sheet/references';
import { driverEnd } from './crossover-design';
import { crossoverPicture } from './picture';
import { crossoverOfUnits, proposedSplits, usableBand, type CrossoverPlan } from './propose';

const units = demoDrivers();
const [bass, dome, large, middle, small] = units;
const plan = (its: Partial<CrossoverPlan>): CrossoverPlan => ({
  title: 'New crossover',
  at: '2026-11-27T08:00:00.000Z',
  units: [bass, dome],
  splitsHz: [2500],
  alignment: 'linkwitz-riley',
  order: 4,
  each: false,
  ...its,
});

test('a unit is of use from an octave above its resonance in its box, up to ka = 2', () => {
  const { fsHz, vasLitres, sdSquareCentimetres } = bass.model;
  const inBox = fsHz! * Math.sqrt(1 + vasLitres! / 14);
  const radius = Math.sqrt((sdSquareCentimetres! * 1e-4) / Math.PI);
  const { fromHz, toHz } = usableBand(bass.model);
  expect(fromHz).toBeCloseTo(2 * inBox, 6);
  expect(toHz).toBeCloseTo(343.2 / (Math.PI * radius), 6);
});

test('of a unit that is known by its level alone, the level says where it is of use', () => {
  const frequenciesHz = [20, 100, 500, 5000, 20_000];
  const model = {
    directivity: 'even' as const,
    reOhms: 6,
    measured: {
      level: {
        ...dome.model.measured!.level!,
        frequenciesHz,
        levelDb: [40, 60, 88, 88, 60],
        phaseDegrees: undefined,
      },
    },
  };
  const { fromHz, toHz } = usableBand(model);
  // Six decibels down on the way from 60 dB at 100 Hz to 88 dB at 500 Hz, and back down behind 5 kHz.
  expect(fromHz).toBeGreaterThan(300);
  expect(fromHz).toBeLessThan(500);
  expect(toHz).toBeGreaterThan(5000);
  expect(toHz).toBeLessThan(9000);
});

test('splits rise whichever units are chosen, and a gap between two is said', () => {
  const anyUnits = fc.array(fc.constantFrom(...units), { minLength: 1, maxLength: 4 });
  fc.assert(
    fc.property(anyUnits, fc.boolean(), (chosen, each) => {
      const splitsHz = proposedSplits(chosen).map(({ hz }) => hz);
      splitsHz.forEach((hz, i) => expect(hz).toBeGreaterThan(splitsHz[i - 1] ?? 0));
      const sheet = crossoverOfUnits(plan({ units: chosen, splitsHz, each }));
      gate(sheet);
      expect(sheet.ways.map((w) => driverEnd(w).driver)).toEqual(chosen.map(({ id }) => id));
      const heights = sheet.ways.map((w) => driverEnd(w).place!.yMetres);
      heights.forEach((y, i) => expect(y).toBeGreaterThan(heights[i - 1] ?? -Infinity));
      expect(crossoverPicture(withDrivers(sheet, units)).problems).toEqual([]);
    }),
    { numRuns: 40 },
  );
  // Units that reach as high as is heard leave room for each other all the same.
  const high = { ...small, model: { directivity: 'even' as const, fsHz: 9000 } };
  const crowded = proposedSplits([bass, high, high, high]).map(({ hz }) => hz);
  expect(crowded).toEqual([...new Set(crowded)].sort((a, b) => a - b));
  const [gap] = proposedSplits([large, small]);
  expect(gap.doubt).toMatch(/^Bass unit, 250 mm narrows its beam .* above 1.1 kHz, and Small dome/);
  expect(proposedSplits([large, middle, small]).map(({ doubt }) => doubt)).toEqual([
    undefined,
    undefined,
  ]);
});

test('louder units are taken down to the quietest, and sections are made for what a unit really is', () => {
  const passive = crossoverOfUnits(plan({}));
  const pads = passive.ways.map((w) => w.stages.find((s) => s.slot?.is === 'pad')?.slot);
  expect(pads[0]).toBeUndefined();
  expect(pads[1]).toMatchObject({ is: 'pad', ohms: passive.crossover!.nominalOhms[1] });
  const levelOf = (sheet: typeof passive) => {
    const picture = crossoverPicture(withDrivers(sheet, units));
    const { ways } = picture.layers.find((l) => l.id === 'built')!;
    const at = (hz: number) => picture.frequenciesHz.findIndex((f) => f >= hz);
    return [ways[0].levelDb[at(400)], ways[1].levelDb[at(9000)]];
  };
  const [low, high] = levelOf(passive);
  expect(Math.abs(low - high)).toBeLessThan(3);
  const [, without] = levelOf({
    ...passive,
    ways: passive.ways.map((w) => ({ ...w, stages: w.stages.filter((s) => s.slot?.is !== 'pad') })),
  });
  expect(without - high).toBeGreaterThan(1);
  // From 2.5 kHz on a dome is little more than its voice coil.
  const { reOhms } = dome.model;
  expect(passive.crossover!.nominalOhms[1] / reOhms!).toBeGreaterThan(1);
  expect(passive.crossover!.nominalOhms[1] / reOhms!).toBeLessThan(1.1);
});

test('what cannot be begun is refused with a reason', () => {
  expect(() => crossoverOfUnits(plan({ units: [] }))).toThrow('Choose one to 4 drivers');
  expect(() =>
    crossoverOfUnits(plan({ units: [large, middle, small], splitsHz: [3000, 400] })),
  ).toThrow('Split 2 must lie above the one before it: 400 Hz does not.');
  const unheard = {
    id: 'u',
    name: 'Old cone',
    model: { ...small.model, measured: undefined, sdSquareCentimetres: undefined },
  };
  expect(() => crossoverOfUnits(plan({ units: [bass, unheard] }))).toThrow(
    'How loud “Old cone” is, is not known',
  );
  expect(() => crossoverOfUnits(plan({ order: 3 }))).toThrow(ReedError);
});
