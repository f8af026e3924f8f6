import made from '@/core/demo/made.json';
import { demoDrivers } from '@/core/demo/drivers';
import { withoutPause } from '@/core/lenses/layers';
import { withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { benchSheet, benchWays } from './bench-sheet';
import { boardCircuit, keyOf, nameOfValue, placeOfPart, shownName } from './board-circuit';
import { compareTake, type TakenCurve } from './compare';
import { innerNets, isOfWay, isSamePoint, pointOfWay } from './points';
import { measureRigBoard } from './rig-board';
import { buildSteps } from './steps/build-steps';
import { stepsOfWay } from './steps/reading-steps';

const demo = (id: string): Sheet =>
  withDrivers(
    (made as unknown as Sheet[]).find((s) => s.id === id)!,
    demoDrivers(),
  );
const SPEAKER = demo('demo-shelf-speaker');
const BANK = demo('demo-bank');

const ohmsOf = (sheet: Sheet, fault: string): TakenCurve => {
  const of = { is: 'impedance' as const };
  return { ...measureRigBoard(sheet, { seed: 3, fault, noiseDb: 0.05, of }), of };
};

describe('a crossover on the bench', () => {
  test('every way is measured at its loudspeaker, its parts by their own names', () => {
    const ways = benchWays(SPEAKER);
    expect(ways).toHaveLength(2);
    for (const { id, name } of ways) {
      const sheet = benchSheet(SPEAKER, id);
      expect(sheet.ways[0].id).toBe(id);
      const take = measureRigBoard(sheet, { seed: 2, fault: 'C1=*1.4', noiseDb: 0.05 });
      const { findings, names } = compareTake(sheet, undefined, take);
      expect(findings.ranking[0].parts[0].id).toBe('C1');
      expect(names.C1).toBe('C1');
      // What is of the other way is called by it, and kept under its own key.
      const other = sheet.ways[1];
      const foreign = `${other.id}:C1`;
      expect(shownName(sheet, foreign)).toBe(`C1 of ${other.name}`);
      const place = placeOfPart(sheet, 'C1')!;
      expect(place.way).toBe(id);
      expect(nameOfValue(sheet, keyOf(place))).toBe('C1');
      expect(nameOfValue(benchSheet(SPEAKER, other.id), keyOf(place))).toBe(`${id}:C1`);
      expect(name).not.toBe(other.name);
    }
  });

  test('the amplifier sees all ways at once: ohms name a part of either', () => {
    const sheet = benchSheet(SPEAKER, SPEAKER.ways[0].id);
    const foreign = `${SPEAKER.ways[1].id}:C1`;
    const { findings, names, differenceDb } = compareTake(
      sheet,
      undefined,
      ohmsOf(sheet, `${foreign}=*1.5`),
    );
    expect(findings.ranking[0].parts).toMatchObject([{ id: foreign }]);
    expect(names[foreign]).toBe(`C1 of ${SPEAKER.ways[1].name}`);
    // Ohms are not shifted: where no capacitor counts there is no difference.
    expect(Math.abs(differenceDb[0])).toBeLessThan(0.5);
  });

  test('ways behind amplifiers of their own end open', () => {
    const active = demo('demo-shelf-speaker-active');
    const sheet = benchSheet(active, active.ways[1].id);
    expect(sheet.ways.every(({ to }) => to.is === 'load' && to.ohms === null)).toBe(true);
    const { circuit } = boardCircuit(sheet, undefined, [], { of: { is: 'impedance' } });
    expect(circuit.parts.some((p) => p.kind === 'current-source')).toBe(true);
    expect(ohmsOf(sheet, '').levelDb.every(Number.isFinite)).toBe(true);
  });

  test('what is soldered is done once for all ways, what is measured for each', async () => {
    const of = async (way: string) => {
      const sheet = benchSheet(SPEAKER, way);
      const steps = await buildSteps(
        { sheet, board: undefined, drawer: [], mark: 'point' },
        withoutPause,
      );
      return stepsOfWay(steps, sheet, way === SPEAKER.ways[0].id ? '' : `${way}/`);
    };
    const [low, high] = await Promise.all(SPEAKER.ways.map(({ id }) => of(id)));
    const ids = (steps: typeof low) => steps.map((s) => s.id);
    const shared = ids(low).filter((id) => ids(high).includes(id));
    expect(shared).toEqual(expect.arrayContaining(['solder-resistors', 'inspect', 'listen']));
    expect(shared).not.toContain('sweep');
    const sweep = low.find((s) => s.id === 'sweep')!;
    expect(sweep.detail).toContain('its impedance is in the prediction');
    expect(sweep.caution).toContain('too low a load');
    expect(low.find((s) => s.id === 'solder-resistors')!.detail).toContain('R1 of high');
  });
});

describe('a bank on the bench', () => {
  test('stands there channel by channel, each by itself', async () => {
    const [, second] = benchWays(BANK);
    const sheet = benchSheet(BANK, second.id);
    const ohms = boardCircuit(sheet, undefined, [], { of: { is: 'impedance' } });
    expect(ohms.circuit.parts.length).toBeLessThan(40);
    const steps = stepsOfWay(
      await buildSteps({ sheet, board: undefined, drawer: [], mark: 'point' }, withoutPause),
      sheet,
      'x/',
    );
    expect(steps.every(({ id }) => id.startsWith('x/'))).toBe(true);
    expect(steps[0].detail).not.toMatch(/R\d of /);
  });

  test('also behind a source whose resistance all channels share', () => {
    const shared = { ...BANK, source: { ...BANK.source, ohms: 600 } };
    const sheet = benchSheet(shared, BANK.ways[2].id);
    const take = ohmsOf(sheet, 'R1=*1.4');
    expect(compareTake(sheet, undefined, take).findings.ranking[0].parts[0].id).toBe('R1');
    // A source’s own resistance is not what it sees.
    const bare = ohmsOf(benchSheet(BANK, BANK.ways[2].id), 'R1=*1.4');
    expect(take.levelDb[40]).toBeCloseTo(bare.levelDb[40], 0);
  });
});

describe('what a take is of', () => {
  test('is the output where nothing is said, an inner net by name, or ohms', () => {
    const nets = innerNets(benchSheet(SPEAKER, SPEAKER.ways[0].id));
    expect(nets.length).toBeGreaterThan(0);
    for (const { net, parts } of nets) {
      expect(net).not.toContain(':');
      expect(parts.length).toBeGreaterThan(1);
    }
    const [{ net }] = nets;
    expect(isSamePoint(undefined, { is: 'level', way: 'w2' })).toBe(true);
    expect(isSamePoint(undefined, { is: 'level', net })).toBe(false);
    expect(isOfWay(undefined, 'w1', 'w1')).toBe(true);
    expect(isOfWay(undefined, 'w2', 'w1')).toBe(false);
    expect(isOfWay({ is: 'impedance' }, 'w2', 'w1')).toBe(true);
    // What the source sees is of all ways at once, but of a bank: that of one channel is of no other.
    expect(pointOfWay(SPEAKER, { is: 'impedance' }, 'w2', 'w1')).toEqual({ is: 'impedance' });
    const channel = pointOfWay(BANK, { is: 'impedance' }, 'c2', 'c1');
    expect(isOfWay(channel, 'c2', 'c1')).toBe(true);
    expect(isOfWay(channel, 'c1', 'c1')).toBe(false);
    expect(pointOfWay(SPEAKER, undefined, 'w1', 'w1')).toBeUndefined();
    expect(pointOfWay(SPEAKER, undefined, 'w2', 'w1')).toEqual({ is: 'level', way: 'w2' });
    // A net that is gone since is said, and nothing is compared.
    expect(() =>
      boardCircuit(SPEAKER, undefined, [], { of: { is: 'level', net: 'gone' } }),
    ).toThrow(/net “gone” that this sheet no longer has/);
  });
});
