import { activeShelfSpeaker, hallSpeaker, shelfSpeaker } from '@/core/demo/crossovers';
import { demoDrivers } from '@/core/demo/drivers';
import { gate } from '@/core/sheet/gate';
import { withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import type { CrossoverDesign } from './crossover-design';
import { crossoverPicture } from './picture';
import { withBand, withHelper, withoutWay } from './ways';
import { tuneCrossover, USUAL_WISH } from './tune';

const AT = '2026-11-27T08:00:00.000Z';
const of = (sheet: Sheet) => sheet as Sheet & CrossoverDesign;
const sections = (sheet: Pick<Sheet, 'ways'>) =>
  sheet.ways.map((w) =>
    w.stages.flatMap((s) =>
      s.slot?.is === 'section' && s.slot.pass !== 'band' ? [`${s.slot.pass} ${s.slot.hz}`] : [],
    ),
  );
const solves = (sheet: Sheet) => {
  gate(sheet);
  const { problems, layers } = crossoverPicture(withDrivers(sheet, demoDrivers()));
  expect(problems).toEqual([]);
  return layers[0];
};

test('one more band is divided from the one below it; without it all is as before', () => {
  const two = of(shelfSpeaker(AT));
  const three = withBand(two);
  expect(three.crossover.splitsHz).toEqual([2500, 10_000]);
  expect(sections(three)).toEqual([['low 2500'], ['high 2500', 'low 10000'], ['high 10000']]);
  expect(solves(three).ways).toHaveLength(3);
  const back = withoutWay(three, three.ways[2].id);
  expect(sections(back)).toEqual(sections(two));
  expect(back.crossover).toEqual(two.crossover);
});

test('without its middle a three-way hands over where the middle began', () => {
  const two = withoutWay(of(hallSpeaker(AT)), 'middle');
  expect(two.crossover.splitsHz).toEqual([3500]);
  expect(sections(two)).toEqual([['low 3500'], ['high 3500']]);
  solves(two);
  const upper = withoutWay(of(hallSpeaker(AT)), 'low');
  expect(sections(upper)).toEqual([['low 3500'], ['high 3500']]);
});

test('a helper is the lowest driver once more, follows no split, and counts in the sum', () => {
  const half = withHelper(of(shelfSpeaker(AT)));
  expect(sections(half)[2]).toEqual(['low 830']);
  expect(half.ways[2].to).toMatchObject({ driver: 'demo-bass-130', inverted: false });
  const bass = (sheet: Sheet) => {
    const { sumDb } = solves(sheet);
    return sumDb[60];
  };
  // Twice the cone, and half the load: nearly 6 dB more in the bass.
  expect(bass(half) - bass(shelfSpeaker(AT))).toBeGreaterThan(4.5);
  const moved = withoutWay(withBand(half), 'top');
  expect(sections(moved)).toEqual(sections(half));
  expect(withoutWay(half, 'helper').crossover).toEqual(shelfSpeaker(AT).crossover);
});

test('active ways are added as active ones', () => {
  const three = withBand(of(activeShelfSpeaker(AT)));
  expect(three.ways[2].stages.map((s) => s.topology)).toEqual([
    'unity-high-pass',
    'unity-high-pass',
  ]);
  solves(withHelper(three));
});

test('ways beyond what can be told apart, or the last one away, are refused', () => {
  const four = withHelper(withBand(of(shelfSpeaker(AT))));
  expect(() => withBand(four)).toThrow(/at most 4 ways/);
  expect(() => withHelper(four)).toThrow(/at most 4 ways/);
  const one = withoutWay(of(shelfSpeaker(AT)), 'high');
  solves(one);
  expect(() => withoutWay(one, 'low')).toThrow(/one way at least/);
});

test('a helper is tuned with the rest: no edge is asked of it', () => {
  const half = withDrivers(withHelper(of(shelfSpeaker(AT))), demoDrivers()) as Sheet &
    CrossoverDesign;
  const wish = { ...USUAL_WISH, polarity: 'kept' as const, snap: false, starts: 1 };
  const { before, found } = tuneCrossover(half, wish);
  expect(found[0].withinDb).toBeLessThan(before.withinDb / 2);
});
