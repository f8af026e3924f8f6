import fc from 'fast-check';
import { activeHallSpeaker, activeShelfSpeaker, shelfSpeaker } from '@/core/demo/crossovers';
import { demoDrivers } from '@/core/demo/drivers';
import { readSheet } from '@/core/sheet/read';
import { withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { impedanceAt } from '@/core/speaker/unit';
import { soundLevels } from '@/core/speaker/sound-levels';
import { SolvedSpeaker } from '@/core/speaker/solved-speaker';
import { evenly, spreadAboutMean } from '@/core/speaker/tune/measure';
import { hasAmplifiers, LINE_OHMS } from './active';
import { withGangedEdge } from './gang';
import { hardestOhms } from './loads';
import { makeCrossover, redivided, withAmplifiers } from './make';
import { crossoverPicture } from './picture';
import type { CrossoverDesign } from './crossover-design';
import { withHelper } from './ways';
import { speakerOf } from './speaker-of';
import { tuneCrossover, USUAL_WISH, withTuning } from './tune';

const AT = '2026-11-27T08:00:00.000Z';
const solved = (sheet: Sheet) => withDrivers(sheet, demoDrivers()) as Sheet & CrossoverDesign;
const SHELF = solved(activeShelfSpeaker(AT));
const KNOB = {
  id: 'knob',
  name: 'Split',
  split: 0,
  ways: 'both',
  fromHz: 1000,
  toHz: 4000,
} as const;
const MIDDLE = { xMetres: 0, yMetres: 0, zMetres: 0 };

/** Ways of perfect op-amps and exact parts before drivers that sound alike, all at one place. */
const ideal = (
  alignment: 'linkwitz-riley' | 'butterworth',
  order: number,
  splitsHz: readonly number[],
): Sheet & CrossoverDesign =>
  makeCrossover({
    id: 'x',
    title: 'x',
    at: AT,
    source: { name: 'line', ohms: LINE_OHMS, volts: 0.1 },
    parts: {
      ...SHELF.parts,
      opAmp: { name: 'ideal', model: 'ideal' },
      resistors: 'exact',
      capacitors: 'exact',
      inductors: 'exact',
    },
    ways: ['low', 'middle', 'high'].slice(0, splitsHz.length + 1).map((id) => ({
      id,
      name: id,
      driver: { id: 'd', name: 'd' },
      place: MIDDLE,
      nominalOhms: 8,
      amplifier: { gainDb: 26, ohms: 0 },
    })),
    crossover: {
      splitsHz: [...splitsHz],
      alignment,
      order,
      fromHz: 100,
      toHz: 10_000,
      withinDb: 1,
      leastOhms: 4,
      loudVolts: 1,
      listen: { xMetres: 0, yMetres: 0, zMetres: 1 },
    },
  }) as Sheet & CrossoverDesign;

const flatness = (design: CrossoverDesign, hz = evenly(50, 20_000, 121)): number => {
  const speaker = new SolvedSpeaker(speakerOf(design, 'nominal'));
  return spreadAboutMean(soundLevels(speaker.sound(speaker.electrical(hz)).sum));
};

test.each([
  ['linkwitz-riley', 2],
  ['linkwitz-riley', 4],
  ['butterworth', 1],
  ['butterworth', 3],
] as const)('a sum of active %s sections of order %d is flat', (alignment, order) => {
  expect(flatness(ideal(alignment, order, [1800]))).toBeLessThan(1e-3);
});

test('the two ways of an even Butterworth sum to 3 dB more where they meet', () => {
  const design = ideal('butterworth', 4, [1800]);
  const speaker = new SolvedSpeaker(speakerOf(design, 'nominal'));
  const hz = Float64Array.of(20, 1800);
  const [far, met] = soundLevels(speaker.sound(speaker.electrical(hz)).sum);
  expect(met - far).toBeCloseTo(20 * Math.log10(Math.SQRT2), 3);
});

test('an amplifier of its own is loaded with its driver alone, whatever stands before it', () => {
  const { layers, problems, frequenciesHz } = crossoverPicture(SHELF);
  expect(problems).toEqual([]);
  const { loads, figures, ways } = layers[0];
  expect(loads.map((l) => l.way)).toEqual(['low', 'high']);
  const { units } = new SolvedSpeaker(speakerOf(SHELF));
  const { re, im } = impedanceAt(units[1], frequenciesHz[200]);
  expect(loads[1].ohms[200]).toBeCloseTo(Math.hypot(re, im), 9);
  expect(figures.impedance!.value).toBeLessThan(Math.min(...loads[0].ohms) * 1.001);
  // No resistor at line level gets hot; the level trim of the dome takes what it was asked to.
  expect(figures.heat).toBeNull();
  expect(ways[1].slots.at(-1)!.db).toBeCloseTo(-3.4, 0);
});

test('a load that is not resistive is harder than its size, and never easier', () => {
  expect(hardestOhms(8, 0)).toBeCloseTo(8, 12);
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 100, noNaN: true }),
      fc.double({ min: -1.5, max: 1.5, noNaN: true }),
      (ohms, radians) => {
        // Against a fine search of the heat of one transistor over a turn.
        let most = 0;
        for (let t = 0; t < Math.PI; t += 1e-3)
          most = Math.max(most, (1 - Math.sin(t + radians)) * Math.sin(t));
        const hard = hardestOhms(ohms, radians);
        expect(Math.abs(hard / (ohms / (4 * most)) - 1)).toBeLessThan(1e-4);
        expect(hard).toBeLessThanOrEqual(ohms * (1 + 1e-9));
        expect(hardestOhms(ohms, -radians)).toBeCloseTo(hard, 6);
      },
    ),
  );
});

test('a crossover becomes an active one and back: levels, places, polarity and trims are kept', () => {
  const passive = shelfSpeaker(AT);
  const active = withAmplifiers(passive, true);
  expect(hasAmplifiers(active)).toBe(true);
  expect(active.source.volts).toBeCloseTo(passive.source.volts / 10 ** (26 / 20), 12);
  expect(active.ways.map((w) => w.to)).toEqual(
    passive.ways.map((w) => ({ ...w.to, amplifier: { gainDb: 26, ohms: 0.05 } })),
  );
  const trim = active.ways[1].stages.at(-1)!;
  expect(trim.topology).toBe('l-pad');
  expect(trim.target!.gain).toBeCloseTo(10 ** (-3.4 / 20), 12);
  const back = withAmplifiers(active, false);
  expect(back.ways.map((w) => w.to)).toEqual(passive.ways.map((w) => w.to));
  expect(back.source).toMatchObject({ ohms: 0.05, volts: passive.source.volts });
  expect(back.ways[1].stages.at(-1)!.slot).toMatchObject({ is: 'pad' });
  expect(() => readSheet(JSON.parse(JSON.stringify(active)))).not.toThrow();
});

test('a trap becomes a dip and a helper keeps its own low-pass, there and back', () => {
  const passive = withHelper(solved(shelfSpeaker(AT)));
  const active = withAmplifiers(passive, true);
  const made = (w: number) =>
    active.ways[w].stages.map(({ topology, target }) => [topology, target?.f0Hz]);
  expect(made(0).at(-1)).toEqual(['resonator-dip', 830]);
  expect(made(2)).toEqual([
    ['buffer', 1000],
    ['buffered-rc-low-pass', expect.closeTo(830, 9)],
  ]);
  const back = withAmplifiers(active, false);
  const slots = (design: typeof passive) => design.ways.map((w) => w.stages.map((s) => s.slot));
  const [[, trap], , [helper]] = slots(back);
  const [[, own], , [before]] = slots(passive);
  expect(trap).toMatchObject({ is: 'trap-across', hz: 830, downDb: 4.1, octaves: 1.1 });
  expect(own).toMatchObject({ is: 'trap-across', hz: 830, downDb: 4.1, octaves: 1.1 });
  expect(helper).toEqual(before);
  // A section that a knob took over is asked for again: no passive one has a knob.
  const knobbed = withGangedEdge(active, KNOB);
  expect(slots(withAmplifiers(knobbed, false))[0]).toMatchObject([
    { is: 'section', pass: 'low', order: 2 },
    { is: 'trap-across' },
  ]);
});

test('asked for another slope, an active way is designed anew where its sections stand', () => {
  const before = activeShelfSpeaker(AT);
  const after = redivided(before, { ...before.crossover!, order: 2, splitsHz: [3000] });
  expect(after.ways.map((w) => w.stages.map((s) => s.topology))).toEqual([
    ['buffer', 'unity-low-pass', 'resonator-dip'],
    ['buffer', 'unity-high-pass', 'all-pass-first', 'l-pad'],
  ]);
  expect(after.ways[0].stages[1]).toMatchObject({ id: before.ways[0].stages[1].id });
  expect(after.ways[0].stages[1].target).toEqual({ f0Hz: 3000, q: 0.5 });
  // Orders two and four differ by half a turn where two ways meet.
  expect(after.ways.map((w) => w.to.is === 'driver' && w.to.inverted)).toEqual([false, true]);
});

test.each([
  ['linkwitz-riley', 2],
  ['linkwitz-riley', 4],
  ['butterworth', 3],
] as const)('one knob moves a %s split of order %d and the sum stays flat', (alignment, order) => {
  const design = withGangedEdge(ideal(alignment, order, [1800]), {
    id: 'knob',
    name: 'Split',
    split: 0,
    ways: 'both',
    fromHz: 900,
    toHz: 3600,
  });
  const [control] = design.controls;
  expect(control.moves).toHaveLength(2 * order);
  const edges = [0, 0.3, 1].map((at) => {
    const turned = { ...design, controls: [{ ...control, at }] };
    const speaker = new SolvedSpeaker(speakerOf(turned, 'nominal'));
    const hz = evenly(200, 20_000, 1201);
    const { sum, ways } = speaker.sound(speaker.electrical(hz));
    // The end resistance of a track is an ohm in thousands.
    expect(spreadAboutMean(soundLevels(sum))).toBeLessThan(0.02);
    const [low, high] = ways.map(soundLevels);
    return hz[low.findIndex((db, k) => db < high[k])];
  });
  expect(edges[0]).toBeGreaterThan(900 * 0.95);
  expect(edges[0]).toBeLessThan(900 * 1.05);
  expect(edges[1]).toBeGreaterThan(edges[0]);
  expect(edges[2]).toBeGreaterThan(3600 * 0.95);
  expect(edges[2]).toBeLessThan(3600 * 1.05);
  // Asked for elsewhere, the knob's sections stand in the place of new ones.
  const after = redivided(design, { ...design.crossover, splitsHz: [1000] });
  expect(after.ways.map((w) => w.stages.length)).toEqual(design.ways.map((w) => w.stages.length));
});

test('a knob for what equal tracks cannot follow says so', () => {
  const plan = { id: 'k', name: 'k', split: 0, ways: 'both' as const, fromHz: 900, toHz: 3600 };
  const bessel = redivided(SHELF, { ...SHELF.crossover, alignment: 'bessel' });
  expect(() => withGangedEdge(bessel, plan)).toThrow(/several frequencies/);
  expect(() => withGangedEdge(SHELF, { ...plan, toHz: 900 })).toThrow(/tenth above/);
  expect(() => withGangedEdge(solved(shelfSpeaker(AT)), plan)).toThrow(/no amplifier of its own/);
});

test('tuned, an active two-way is flat by its resistors alone', () => {
  const gentle = redivided(SHELF, { ...SHELF.crossover, order: 2 });
  const wish = { ...USUAL_WISH, polarity: 'kept' as const, snap: false, wayWithinDb: undefined };
  const { before, found } = tuneCrossover(gentle, wish);
  expect(before.withinDb).toBeGreaterThan(4);
  expect(found[0].withinDb).toBeLessThan(1);
  const tuned = withTuning(gentle, found[0]);
  const farads = ({ ways }: Pick<Sheet, 'ways'>) =>
    ways.flatMap((w) => w.stages.map((s) => [s.parts.C1?.value, s.parts.C2?.value]));
  expect(farads(tuned)).toEqual(farads(gentle));
  expect(crossoverPicture(tuned).layers[0].figures.sum!.value).toBeCloseTo(found[0].withinDb, 1);
});

test('the active hall speaker has three ways, each behind its own amplifier', () => {
  const { layers, problems } = crossoverPicture(solved(activeHallSpeaker(AT)));
  expect(problems).toEqual([]);
  expect(layers[0].loads).toHaveLength(3);
});
