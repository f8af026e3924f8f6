import { hallSpeaker, shelfSpeaker } from '@/core/demo/crossovers';
import { demoDrivers } from '@/core/demo/drivers';
import { withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import type { CrossoverDesign } from '../crossover-design';
import { buildSteps } from './steps';
import { TIERS, tiersPicture, withTier } from './tiers';
import { wiringOf } from './wiring';

const AT = '2026-11-27T08:00:00.000Z';
const solved = (sheet: Sheet) => withDrivers(sheet, demoDrivers()) as Sheet & CrossoverDesign;
const SHELF = solved(shelfSpeaker(AT));

test('the wiring has every end once, as the drawing has them', () => {
  expect(wiringOf(SHELF)).toEqual([
    { name: 'From the amplifier', ends: ['amplifier +', 'L1', 'C3'] },
    { name: 'Point 1', ends: ['L1', 'C1', 'L2', 'Bass unit, 130 mm +'] },
    { name: 'Point 2', ends: ['L2', 'C2'] },
    { name: 'Point 3', ends: ['C2', 'R1'] },
    { name: 'Point 4', ends: ['C3', 'L3', 'R2'] },
    // The dome is turned over: its plus goes to the return.
    { name: 'Point 5', ends: ['R2', 'R3', 'Soft dome, 25 mm −'] },
    {
      name: 'Common return',
      ends: ['amplifier −', 'C1', 'R1', 'L3', 'R3', 'Bass unit, 130 mm −', 'Soft dome, 25 mm +'],
    },
  ]);
});

test('a way without parts goes straight from the amplifier to its driver', () => {
  const [low, high] = SHELF.ways;
  const [from] = wiringOf({ ...SHELF, ways: [{ ...low, stages: [] }, high] });
  expect(from.ends).toEqual(['amplifier +', 'C1', 'Bass unit, 130 mm +']);
});

test('what costs more resists less, weighs more, and keeps values', () => {
  const { tiers, problem } = tiersPicture(SHELF);
  expect(problem).toBeNull();
  const rising = (of: (t: (typeof tiers)[number]) => number) =>
    tiers.slice(1).forEach((t, i) => expect(of(t)).toBeGreaterThan(of(tiers[i])));
  rising((t) => t.cost);
  rising((t) => t.copperKilograms);
  rising((t) => -t.mostOhms);
  const values = (d: Pick<Sheet, 'ways'>) =>
    d.ways.map((w) => w.stages.map((s) => Object.values(s.parts).map((p) => p.value)));
  for (const tier of TIERS) expect(values(withTier(SHELF, tier))).toEqual(values(SHELF));
});

test('the steps name the parts of each way, the polarity, and what protects the uppermost driver', () => {
  const steps = buildSteps(solved(hallSpeaker(AT)));
  expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
  const all = steps.map((s) => s.text).join(' ');
  expect(all).toMatch(/Tie the coils L1, L2, L3, L4 down first/);
  expect(all).toMatch(/middle turned over/);
  // A quarter of 3.5 kHz into 5 ohms.
  expect(all).toMatch(/capacitor of 33.µF in line with Small dome/);
  expect(steps.filter((s) => s.caution).length).toBeGreaterThanOrEqual(4);
});
