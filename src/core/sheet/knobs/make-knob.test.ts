import { AcAnalysis } from '@/core/analysis/ac/ac';
import { ReedError } from '@/core/errors';
import { levelsDb } from '@/core/response/response';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import { newSheet } from '@/testing/open-sheet';
import { defaultTarget } from '../default-target';
import { makeStage } from '../make';
import { pathCircuit } from '../path-circuit';
import type { Sheet, Stage } from '../schema';
import { drawnParts, valuesOf } from '../stage';
import { partnersOf, turnFor, usualKnob, withKnob, type KnobPlan } from './make-knob';

const HZ = Float64Array.of(20, 200, 700, 1000, 1500, 5000);

const sheetOf = (stage: Stage, controls: Sheet['controls'] = []): Sheet => {
  const sheet = newSheet();
  const to = { is: 'load', name: 'Load', ohms: 100_000, farads: null } as const;
  return { ...sheet, controls, ways: [{ ...sheet.ways[0], stages: [stage], to }] };
};

const levelOf = (sheet: Sheet) =>
  levelsDb(new AcAnalysis(pathCircuit(sheet, 0, 'built')).voltage('out', HZ));

const controlled = ({ stage, moves }: ReturnType<typeof withKnob>, at: number): Sheet =>
  sheetOf(stage, [{ id: 'c1', name: 'Knob', is: 'turn', at, moves }]);

const every = TOPOLOGIES.flatMap((topology) => {
  const stage = makeStage('s1', topology, defaultTarget(topology, 1000), newSheet().parts, 'hand');
  const resistors = drawnParts(stage).filter(
    (p) => p.kind === 'resistor' && valuesOf(stage)[p.id] >= 1,
  );
  return resistors.length > 0 ? [[topology.id, stage, resistors.map((r) => r.id)] as const] : [];
});

/** A third of them, and those whose drawings have no room for the first way of doing it. */
const CROWDED = ['tone-control', 'low-shelf-cut'];
const sampled = every.filter(
  ([id, , ids], n) => CROWDED.includes(id) || (n % 3 === 0 && ids.length < 7),
);

test.each(sampled)('resistors of %s can be a knob, and begins where it was', (_, stage, ids) => {
  // The first and the last of many alike tell as much as all of them.
  for (const part of new Set([ids[0], ids[ids.length - 1]])) {
    const usual = usualKnob(stage, part);
    const plan: KnobPlan = { as: 'variable', parts: [part], taper: 'linear', ...usual };
    const made = withKnob(stage, plan);
    expect(made.at).toBeGreaterThan(0);
    expect(made.at).toBeLessThan(1);
    const [before, after] = [levelOf(sheetOf(stage)), levelOf(controlled(made, made.at))];
    // The shaft stands where it did to a hundredth of a per cent of the track.
    before.forEach((db, k) => {
      if (db > -80) expect(Math.abs(after[k] - db)).toBeLessThan(0.1);
    });
  }
});

const unity = makeStage(
  's1',
  topologyOf('unity-low-pass'),
  { f0Hz: 1000, q: 0.7 },
  newSheet().parts,
  'hand',
);

test('a pair turns two resistors by one shaft; the second track runs ahead as far as is said', () => {
  const plan: KnobPlan = {
    as: 'variable',
    parts: ['R1', 'R2'],
    trackOhms: 22_000,
    seriesOhms: 1000,
    taper: 'reverse-audio',
    mismatch: 0.03,
  };
  const made = withKnob(unity, plan);
  expect(made.moves.map((m) => m.part)).toEqual(['P1', 'P2']);
  expect(made.stage.parts.P1).toMatchObject({
    value: 22_000,
    model: { model: { taper: 'reverse-audio' } },
  });
  expect(made.stage.parts.P1.more?.mismatch).toBeUndefined();
  expect(made.stage.parts.P2.more).toMatchObject({ mismatch: 0.03 });
  const pots = pathCircuit(controlled(made, 0.3), 0, 'built').parts.filter(
    (p) => p.kind === 'potentiometer',
  );
  expect(pots).toMatchObject([
    { turn: 0.3, ohms: 22_000 },
    { turn: 0.3, mismatch: 0.03 },
  ]);
});

test('turned the other way it has less resistance turned up', () => {
  const plan: KnobPlan = {
    as: 'variable',
    parts: ['R1'],
    trackOhms: 47_000,
    seriesOhms: 0,
    taper: 'linear',
  };
  const [up, down] = [withKnob(unity, plan), withKnob(unity, { ...plan, reversed: true })];
  const level = (made: typeof up, at: number) => levelOf(controlled(made, at))[5];
  expect(level(up, 0.9)).toBeLessThan(level(up, 0.1));
  expect(level(down, 0.9)).toBeGreaterThan(level(down, 0.1));
  expect(level(down, 0.9)).toBeCloseTo(level(up, 0.1), 9);
});

test('two resistors that meet become a divider whose wiper divides as they did', () => {
  const gain = makeStage(
    's1',
    topologyOf('non-inverting'),
    { f0Hz: 1000, gain: 4 },
    newSheet().parts,
    'hand',
  );
  expect(partnersOf(gain, 'RF')).toEqual(['RG']);
  const plan: KnobPlan = {
    as: 'divider',
    parts: ['RF', 'RG'],
    trackOhms: 10_000,
    seriesOhms: 1000,
    taper: 'linear',
  };
  const made = withKnob(gain, plan);
  expect(drawnParts(made.stage).filter((p) => p.kind === 'resistor')).toHaveLength(2);
  const [before, after] = [levelOf(sheetOf(gain)), levelOf(controlled(made, made.at))];
  expect(after[2]).toBeCloseTo(before[2], 2);
  // Against a stop one of the two is the end resistor alone: 11 kΩ over 1 kΩ.
  expect(levelOf(controlled(made, 1))[0]).toBeCloseTo(20 * Math.log10(12), 1);
  expect(levelOf(controlled(made, 0))[0]).toBeCloseTo(20 * Math.log10(12 / 11), 1);
});

test.each([
  ['C1', /no resistor/],
  ['nothing', /no resistor/],
])('%s is refused in words', (part, why) => {
  const plan: KnobPlan = {
    as: 'variable',
    parts: [part],
    trackOhms: 1e4,
    seriesOhms: 0,
    taper: 'linear',
  };
  expect(() => withKnob(unity, plan)).toThrow(why);
});

test('a divider of resistors that do not meet, and a track that cannot be had, are refused', () => {
  const plan: KnobPlan = {
    as: 'divider',
    parts: ['R1', 'R1'],
    trackOhms: 1e4,
    seriesOhms: 0,
    taper: 'linear',
  };
  expect(() => withKnob(unity, plan)).toThrow(ReedError);
  expect(() => withKnob(unity, { ...plan, as: 'variable', parts: ['R1'], trackOhms: 0 })).toThrow(
    /cannot be had/,
  );
});

test('a place of the shaft is found for every part of every track', () => {
  expect(turnFor(0.1, 'audio')).toBeCloseTo(0.5, 4);
  expect(turnFor(0.9, 'reverse-audio')).toBeCloseTo(0.5, 4);
  expect(turnFor(0.25, 'linear')).toBeCloseTo(0.25, 4);
  expect([turnFor(-1, 'linear'), turnFor(3, 'audio')]).toEqual([0, 1]);
});
