import { levelsDb } from '@/core/response/response';
import { AcAnalysis } from '@/core/analysis/ac/ac';
import { topologyOf } from '@/core/topologies';
import { newSheet } from '@/testing/open-sheet';
import { demoMade } from '@/testing/demo';
import { jointsOf } from '../joints';
import { makeStage } from '../make';
import { grafted } from '../graft';
import { pathCircuit } from '../path-circuit';
import { exactValues } from '../exact';
import type { Sheet, Stage } from '../schema';
import { withValue } from '../stage';
import { scaledStage } from './scale';
import { remediesFor, type Offered } from '.';

const HZ = 200;

/** An RC of 10 kΩ and 15.9 nF. */
const rc = (id: string, parts = newSheet().parts): Stage =>
  makeStage(id, topologyOf('rc-low-pass'), { f0Hz: 1000 }, parts, 'hand');

const sheetOf = (stages: Stage[], sourceOhms = 0): Sheet => {
  const sheet = newSheet();
  const to = { is: 'load', name: 'Load', ohms: null, farads: null } as const;
  return {
    ...sheet,
    source: { name: 'Source', ohms: sourceOhms, volts: 1 },
    ways: [{ ...sheet.ways[0], stages, to }],
  };
};

const withStages = (sheet: Sheet, { stages }: Offered): Sheet => ({
  ...sheet,
  ways: [{ ...sheet.ways[0], stages }],
});

const offersAt = (sheet: Sheet, n: number) => remediesFor(sheet, jointsOf(sheet, 0, HZ)[n], 20);

const levelOf = (sheet: Sheet, hz: number) =>
  levelsDb(new AcAnalysis(pathCircuit(sheet, 0, 'built')).voltage('out', Float64Array.of(hz)))[0];

test('two RC stages: a buffer takes all of it away, a higher impedance most of it', () => {
  const sheet = sheetOf([rc('s1'), rc('s2')]);
  const offers = offersAt(sheet, 1);
  expect(offers.map((o) => o.id)).toEqual(['buffer', 'scale']);
  const [buffer, scale] = offers;
  expect(buffer.lossDb).toBeGreaterThan(-1e-4);
  expect(scale.words).toMatch(/^Make stage 2 \d+ times higher in impedance$/);
  expect(scale.lossDb).toBeGreaterThan(-0.1);
  for (const offer of offers) {
    // What is said of it is what the solver finds once it is done.
    const done = withStages(sheet, offer);
    const lost = jointsOf(done, 0, HZ).reduce((sum, j) => sum + j.lossDb, 0);
    expect(lost).toBeCloseTo(offer.lossDb, 9);
    expect(levelOf(done, HZ)).toBeGreaterThan(levelOf(sheet, HZ));
  }
});

test('stages whose order loads them are offered the other way round', () => {
  const high = rc('s1');
  const low = rc('s2');
  const scaled = scaledStage(high, 10, newSheet().parts)!;
  const wrong = sheetOf([scaled, low]);
  const swap = offersAt(wrong, 1).find((o) => o.id === 'swap')!;
  expect(swap.words).toBe('Swap stage 1 and stage 2');
  expect(swap.stages.map((s) => s.id)).toEqual(['s2', 's1']);
  expect(swap.lossDb).toBeGreaterThan(swap.lostDb + 3);
  // In the right order it is not.
  expect(offersAt(withStages(wrong, swap), 1).map((o) => o.id)).not.toContain('swap');
});

test.each(['rc-low-pass', 'unity-low-pass', 'equal-part-high-pass', 'multiple-feedback-band-pass'])(
  '%s of a higher impedance does the same and shows it at its input',
  (id) => {
    const parts = {
      ...newSheet().parts,
      resistors: 'exact',
      capacitors: 'exact',
      opAmp: { name: 'ideal', model: 'ideal' },
    } as const;
    const topology = topologyOf(id);
    const target = {
      f0Hz: 1000,
      ...(topology.limits.q ? { q: 1 } : {}),
      ...(id.startsWith('equal') ? { gain: 2 } : {}),
    };
    const stage = makeStage('s1', topology, target, parts, 'hand');
    const scaled = scaledStage(stage, 5, parts)!;
    const [a, b] = [stage, scaled].map((s) => ({ ...sheetOf([s]), parts }));
    for (const hz of [100, 700, 1000, 5000]) expect(levelOf(b, hz)).toBeCloseTo(levelOf(a, hz), 6);
    expect(Object.values(exactValues(scaled)!)).not.toEqual(Object.values(exactValues(stage)!));
    const into = (s: Sheet) => jointsOf(s, 0, 700)[0].loadOhms;
    expect(into(b) / into(a)).toBeCloseTo(5, 1);
  },
);

test('nothing is made of parts that there are not', () => {
  const stage = withValue(rc('s1'), 'R1', 1e6);
  expect(scaledStage(stage, 10, newSheet().parts)).toBeUndefined();
});

test('a bias resistor is bootstrapped, and looks many times as large', () => {
  const follower = makeStage('s1', topologyOf('buffer'), { f0Hz: 1000 }, newSheet().parts, 'hand');
  const biased = grafted(follower, {
    do: 'to-ground',
    from: { part: 'A1', pin: 'inPlus' },
    new: { kind: 'resistor', value: 22_000 },
  });
  const sheet = sheetOf([biased], 10_000);
  const offer = offersAt(sheet, 0).find((o) => o.id === 'bootstrap')!;
  expect(offer.words).toBe('Bootstrap the bias resistor R1 from A1');
  const done = withStages(sheet, offer);
  const into = jointsOf(done, 0, HZ)[0].loadOhms;
  expect(into).toBeGreaterThan(20 * 22_000);
  expect(offer.lossDb).toBeGreaterThan(-0.2);
  // One that a stage was designed with sets its corner, and is left alone.
  const designed = makeStage(
    's1',
    topologyOf('buffered-rc-high-pass'),
    { f0Hz: 20 },
    newSheet().parts,
    'hand',
  );
  expect(offersAt(sheetOf([designed], 10_000), 0).map((o) => o.id)).not.toContain('bootstrap');
});

test('of the demo sheets every remedy that is offered betters its path', () => {
  // A crossover is not mended joint by joint.
  for (const sheet of demoMade('2026-11-24T08:00:00.000Z').filter((s) => !s.crossover)) {
    if (sheet.bank) continue;
    for (const joint of jointsOf(sheet, 0, 1000))
      for (const { lossDb, lostDb, stages } of remediesFor(sheet, joint, sheet.view.fromHz)) {
        expect(lossDb).toBeGreaterThan(lostDb);
        expect(new Set(stages.map((s) => s.id)).size).toBe(stages.length);
      }
  }
});
