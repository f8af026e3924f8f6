import { demoDrivers } from '@/core/demo/drivers';
import { activeShelfSpeaker, hallSpeaker, shelfSpeaker } from '@/core/demo/crossovers';
import type { DriverEntry } from '@/core/library/driver';
import { withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { mechanicsOf } from '@/core/speaker/mechanics';
import { anglesPicture } from './angles';
import { decayPicture } from './decay';
import { crossoverDelayPicture } from './group-delay';
import { crossoverPicture } from './picture';
import { driverEnd, type CrossoverDesign } from './crossover-design';
import { SCHOOLS, schooled, schoolsPicture, tunedSchools, type SchoolResult } from './schools';
import { strainPicture } from './strain';
import { withTuning } from './tune';

const AT = '2026-11-27T08:00:00.000Z';
const solved = (sheet: Sheet, drivers: readonly DriverEntry[] = demoDrivers()) =>
  withDrivers(sheet, drivers) as Sheet & CrossoverDesign;
const SHELF = solved(shelfSpeaker(AT));
const HALL = solved(hallSpeaker(AT));

/** The shelf speaker with one way left, and a driver of a given model at the middle, straight. */
const alone = (model: object): Sheet & CrossoverDesign => {
  const sheet = shelfSpeaker(AT);
  const place = { xMetres: 0, yMetres: 0, zMetres: 0 };
  return solved(
    {
      ...sheet,
      source: { ...sheet.source, ohms: 0 },
      crossover: { ...sheet.crossover!, splitsHz: [], nominalOhms: [8], loudVolts: 10 },
      ways: [{ ...sheet.ways[0], stages: [], to: { ...driverEnd(sheet.ways[0]), place } }],
    },
    [{ ...demoDrivers()[0], model: model as DriverEntry['model'] }],
  );
};
const FLAT = { ideal: { ohms: 8, levelDb: 90 }, directivity: 'even' };

test('what passes everything alike has no group delay, and a burst dies away as it was made', () => {
  const sheet = alone(FLAT);
  const delay = crossoverDelayPicture(sheet);
  expect(delay.problem).toBeNull();
  for (const s of delay.sumSeconds) expect(Math.abs(s)).toBeLessThan(1e-9);
  const { periods, levelDb } = decayPicture(sheet);
  periods.forEach((t, n) => {
    const envelope = -8.685889638 * (t / 1.25) ** 2;
    if (envelope > -50) expect(levelDb[n][70]).toBeCloseTo(envelope, 1);
  });
});

test('a first-order low-pass delays by T/(1 + (f/fc)^2)', () => {
  const sheet = alone(FLAT);
  const henries = 1e-3;
  const [way] = sheet.ways;
  const stage = {
    ...SHELF.ways[0].stages[0],
    slot: { is: 'part' as const, part: 'coil' as const, at: 'line' as const, value: henries },
    drawing: {
      symbols: [
        { kind: 'port' as const, name: 'in', flow: 'in' as const, net: 'in', at: [0, 6] as const },
        { kind: 'inductor', id: 'L1', at: [1, 6] as const, toward: 'right' as const },
        {
          kind: 'port' as const,
          name: 'out',
          flow: 'out' as const,
          net: 'out',
          at: [7, 6] as const,
        },
      ],
      wires: [
        [
          [0, 6],
          [1, 6],
        ],
        [
          [5, 6],
          [7, 6],
        ],
      ] as [number, number][][],
    },
    parts: { L1: { value: henries, chosen: 'hand' as const } },
  };
  const design = { ...sheet, ways: [{ ...way, stages: [stage] }] } as Sheet & CrossoverDesign;
  const { frequenciesHz, sumSeconds, problem } = crossoverDelayPicture(design);
  expect(problem).toBeNull();
  const time = henries / 8;
  frequenciesHz.forEach((hz, k) =>
    expect(sumSeconds[k] / (time / (1 + (2 * Math.PI * hz * time) ** 2))).toBeCloseTo(1, 4),
  );
});

test('far below its resonance a cone moves by its compliance: sqrt 2 V Bl Cms/Re', () => {
  const figures = {
    fsHz: 2000,
    qms: 3,
    qes: 0.7,
    vasLitres: 0.3,
    reOhms: 6,
    leHenries: 0,
    sdSquareCentimetres: 20,
    mounting: { kind: 'open' as const },
    powerWatts: 20,
    xmaxMillimetres: 1,
  };
  const { drivers, parts, frequenciesHz } = strainPicture(
    alone({ ...figures, directivity: 'even' }),
  );
  expect(parts).toEqual([]);
  const { force, compliance } = mechanicsOf(figures);
  const still = (1000 * Math.SQRT2 * 10 * force * compliance) / 6;
  expect(drivers[0].millimetres![0] / still).toBeCloseTo(1, 3);
  expect(drivers[0]).toMatchObject({ ratedWatts: 20, ratedMillimetres: 1 });
  expect(drivers[0].volts).toBeCloseTo(10, 6);
  // Most heat far from resonance, where only the voice coil is left: V^2/Re.
  expect(drivers[0].sineWatts / (100 / 6)).toBeGreaterThan(0.99);
  expect(drivers[0].musicWatts).toBeLessThan(drivers[0].sineWatts);
  expect(frequenciesHz[0]).toBeCloseTo(20, 9);
});

test('a real speaker rings at the breakup of its bass and not where nothing breaks up', () => {
  const open = { ...SHELF, ways: SHELF.ways.map((w) => ({ ...w, stages: [] })) };
  const { frequenciesHz, periods, levelDb } = decayPicture({ ...open, ways: [open.ways[0]] });
  const at = (hz: number) => frequenciesHz.findIndex((f) => f >= hz);
  const after = periods.findIndex((p) => p >= 4);
  expect(levelDb[after][at(4700)]).toBeGreaterThan(levelDb[after][at(400)] + 10);
});

test('strain names parts as the drawing does; behind own amplifiers drivers alone bear something', () => {
  const passive = strainPicture(HALL);
  expect(passive.problem).toBeNull();
  expect(passive.drivers.map((d) => d.way)).toEqual(['low', 'middle', 'high']);
  expect(passive.parts.map((p) => p.id)).toContain('L1');
  for (const { sineWatts, musicWatts } of passive.parts)
    expect(musicWatts).toBeLessThanOrEqual(sineWatts + 1e-12);
  const active = strainPicture(solved(activeShelfSpeaker(AT)));
  expect(active.parts).toEqual([]);
  expect(active.drivers[0].volts).toBeGreaterThan(10);
});

test('the map over angle agrees with the curves at its angles, and with the axis', () => {
  const { up, field, problem } = anglesPicture(SHELF);
  expect(problem).toBeNull();
  for (const { degrees, levelDb } of up) {
    const row = field.up[field.degrees.indexOf(degrees)];
    expect(row).toEqual(levelDb);
  }
  const ahead = up.find((c) => c.degrees === 0)!.levelDb;
  expect(field.side[field.degrees.indexOf(0)]).toEqual(ahead);
  // Units that stand above each other are alike to both sides.
  expect(field.side[0]).toEqual(field.side.at(-1));
});

test('a sheet that is no crossover, or has a driver that is gone, is told so and nothing is drawn', () => {
  const gone = shelfSpeaker(AT);
  for (const make of [strainPicture, decayPicture, crossoverDelayPicture])
    expect(make(gone).problem).toMatch(/not among the drivers/);
  expect(crossoverPicture(gone).problems[0]).toMatch(/not among the drivers/);
});

test('schools: each is as its textbook has it, gentle slopes have fewest parts and the hottest top driver', () => {
  const { results, problem } = schoolsPicture(SHELF);
  expect(problem).toBeNull();
  expect(results.map((r) => r.id)).toEqual(SCHOOLS.map((s) => s.id));
  const parts = results.map((r) => r.parts);
  expect(parts).toEqual([...parts].sort((a, b) => a - b));
  const [gentle, , , steep] = results;
  expect(gentle.tweeterWatts).toBeGreaterThan(steep.tweeterWatts);
  expect(gentle.tweeterMillimetres!).toBeGreaterThan(3 * steep.tweeterMillimetres!);
  // What is told of a school is what the sheet reads once it is taken.
  for (const [i, school] of SCHOOLS.entries()) {
    const { figures } = crossoverPicture(schooled(SHELF, school)).layers[0];
    expect(figures.sum!.value).toBeCloseTo(results[i].withinDb, 9);
  }
});

test('each school is told as soon as it is tuned, and is what its values make of the sheet', () => {
  const search = tunedSchools(SHELF);
  let first: SchoolResult | null = null;
  while (!first) first = search.next().value as SchoolResult | null;
  const [school] = SCHOOLS;
  expect(first.id).toBe(school.id);
  expect(first.withinDb).toBeLessThan(1);
  const taken = withTuning(schooled(SHELF, school), first.tuned!);
  const { figures } = crossoverPicture(taken).layers[0];
  expect(figures.sum!.value).toBeCloseTo(first.withinDb, 6);
});
