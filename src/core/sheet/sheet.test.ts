import type { Ask } from '@/core/design/ask';
import { designAsk } from '@/core/design/design';
import { responseCsv } from '@/core/formats/csv';
import { topologyOf } from '@/core/topologies';
import { partVariation } from './variation';
import { SheetEvaluator } from './evaluate';
import { jointsOf } from './joints';
import { defaultTarget } from './default-target';
import { makeSheet, makeStage, redesign, refit } from './make';
import { exactValues } from './exact';
import { partsOf, valuesOf } from './stage';
import { partNames } from './path-circuit';
import type { Sheet } from './schema';
import { meets } from './verdict';

const AT = '2026-11-23T08:00:00.000Z';
const ASK: Ask = {
  kind: 'low-pass',
  shape: 'butterworth',
  order: 4,
  edgeHz: 3400,
  edge: 'half-power',
  gainDb: 0,
  topology: 'unity-low-pass',
};
const SHEET = makeSheet({
  id: 'x',
  title: 'Test',
  ask: ASK,
  at: AT,
  source: { ohms: 600 },
  load: { ohms: 10_000, farads: 220e-12 },
});

describe('from an ask to a solved path', () => {
  test('gain is shared among the stages that can have it, or refused in words', () => {
    const total = (ask: Ask) =>
      designAsk(ask).stages.reduce((g, s) => g * s.topology.figures(s.values).gain, 1);
    expect(20 * Math.log10(total({ ...ASK, topology: 'gain-low-pass', gainDb: 10 }))).toBeCloseTo(
      10,
      9,
    );
    expect(total({ ...ASK, topology: 'multiple-feedback-low-pass', gainDb: 6 })).toBeCloseTo(
      10 ** 0.3,
      9,
    );
    expect(() => designAsk({ ...ASK, gainDb: 6 })).toThrow(/fixed at 0 dB and 6 dB was asked/);
    expect(() => designAsk({ ...ASK, topology: 'gain-low-pass', gainDb: 0 })).toThrow(
      /Leave the gain as it comes/,
    );
    expect(() => designAsk({ ...ASK, topology: 'unity-high-pass' })).toThrow(
      /“unity-high-pass” is a high-pass of order 2/,
    );
    expect(() => designAsk({ ...ASK, topology: 'rc-low-pass' })).toThrow(/unity-low-pass/);
  });

  test('parts are numbered through the path and built values come from the series', () => {
    expect([...partNames(SHEET.ways[0].stages).get('s2')!.values()]).toEqual([
      'R3',
      'R4',
      'C3',
      'C4',
      'A2',
    ]);
    const [, high] = SHEET.ways[0].stages;
    expect(valuesOf(high).C1 / valuesOf(high).C2).toBeGreaterThan(4 * high.target!.q! ** 2 * 0.99);
    const exact = refit(SHEET.ways, { ...SHEET.parts, resistors: 'exact', capacitors: 'exact' })[0]
      .stages[1];
    expect(topologyOf(exact.topology!).figures(valuesOf(exact)).q).toBeCloseTo(high.target!.q!, 9);
  });

  test('a changed ask leaves stages put in by hand where they were', () => {
    const hand = makeStage('h', topologyOf('rc-high-pass'), { f0Hz: 20 }, SHEET.parts, 'hand');
    const way = { ...SHEET.ways[0], stages: [hand, ...SHEET.ways[0].stages] };
    expect(redesign(way, { ...ASK, order: 6 }, SHEET.parts).stages.map((s) => s.id)).toEqual([
      'h',
      's1',
      's2',
      's3',
    ]);
  });
});

describe('evaluating a sheet', () => {
  const evaluator = new SheetEvaluator();
  const evaluation = evaluator.evaluate(SHEET);
  const value = (sheet: Sheet, id: string, layer: 'ideal' | 'built') => {
    const result = evaluator.evaluate(sheet).readings.find((r) => r.id === id)!.results[layer]!;
    if ('error' in result) throw new Error(result.error);
    return result.measured.value;
  };

  test('readings tell ideal from built', () => {
    expect(evaluation.problems).toEqual([]);
    expect(value(SHEET, 'r1', 'ideal')).toBeCloseTo(3400, 4);
    expect(Math.abs(value(SHEET, 'r1', 'built') / 3400 - 1)).toBeLessThan(0.1);
    expect(value(SHEET, 'r2', 'ideal')).toBeCloseTo(0, 3);
  });

  test('a layer keeps its key until something that bears on it changes', () => {
    const keyOf = (sheet: Sheet, id: string) =>
      evaluator.evaluate(sheet).layers.find((l) => l.id === id)!.key;
    const edited = structuredClone(SHEET);
    edited.ways[0].stages[0].parts.R1.value! *= 1.1;
    expect(keyOf(edited, 'ideal')).toBe(keyOf(SHEET, 'ideal'));
    expect(keyOf(edited, 'built')).not.toBe(keyOf(SHEET, 'built'));
  });

  test('joints: a divider loses what the divider equation says', () => {
    const to = { is: 'load', name: '', ohms: 9000, farads: null } as const;
    const bare = {
      ...SHEET,
      source: { name: '', ohms: 1000, volts: 1 },
      ways: [{ ...SHEET.ways[0], stages: [], to }],
    };
    const [joint] = jointsOf(bare, 0, 340);
    expect(joint).toMatchObject({ before: 'source', after: 'load' });
    expect(joint.sourceOhms).toBeCloseTo(1000, 6);
    expect(joint.loadOhms).toBeCloseTo(9000, 6);
    expect(joint.lossDb).toBeCloseTo(20 * Math.log10(0.9), 9);
  });

  test('the losses at the joints add up to what the built path lacks in its pass band', () => {
    const exact = {
      ...SHEET,
      ways: refit(SHEET.ways, { ...SHEET.parts, resistors: 'exact', capacitors: 'exact' }),
    };
    const losses = evaluator.evaluate(exact).joints.reduce((sum, j) => sum + j.lossDb, 0);
    const level = value(
      { ...exact, readings: [{ id: 'l', measure: { measure: 'level', atHz: 340 } }] },
      'l',
      'built',
    );
    expect(level).toBeCloseTo(losses, 1);
  });

  test('joints are judged where the ask of now says, though nothing of the path has changed', () => {
    const byHand = SHEET.ways.map((way) => ({
      ...way,
      stages: way.stages.map((stage) => ({ ...stage, origin: 'hand' as const })),
    }));
    const asks = (edgeHz: number) => ({ ...SHEET, ways: byHand, ask: { ...SHEET.ask, edgeHz } });
    const lived = new SheetEvaluator();
    expect(lived.evaluate(asks(1000)).joints[1].atHz).toBe(100);
    expect(lived.evaluate(asks(5000)).joints).toEqual(
      new SheetEvaluator().evaluate(asks(5000)).joints,
    );
  });

  test('moving a part moves the curve, and csv lists what is drawn', () => {
    const [down, up] = partVariation(SHEET, 's1', 'C2', [0.9, 1.1]);
    expect(down.levelDb[down.levelDb.length - 1]).toBeGreaterThan(
      up.levelDb[up.levelDb.length - 1],
    );
    const lines = responseCsv(evaluation, SHEET).trim().split('\r\n');
    expect(lines[0]).toBe('layer,frequency_hz,level_db,phase_degrees');
    expect(lines).toHaveLength(
      1 + evaluation.layers.reduce((n, l) => n + l.trace.frequenciesHz.length, 0),
    );
  });

  test('verdicts', () => {
    expect(meets({ is: 'near', value: 3400, tolerance: 0.03, relative: true }, 3300)).toBe(true);
    expect(meets({ is: 'near', value: 0, tolerance: 0.5, relative: false }, -0.6)).toBe(false);
    expect(meets({ is: 'at-most', value: -28 }, -30)).toBe(true);
    expect(meets({ is: 'at-least', value: 2 }, 1.9)).toBe(false);
  });
});

describe('each result stands for itself', () => {
  const [first, second] = SHEET.ways[0].stages;
  const withStages = (stages: Sheet['ways'][0]['stages']): Sheet => ({
    ...SHEET,
    ways: [{ ...SHEET.ways[0], stages }],
  });

  test('a target that its circuit cannot hold takes the ideal curve with it, and nothing else', () => {
    const wild = { ...second, target: { ...second.target!, q: 5000 } };
    const { layers, stages, readings, joints, problems } = new SheetEvaluator().evaluate(
      withStages([first, wild]),
    );
    expect(layers.map((l) => l.id)).toEqual(['built']);
    expect(problems).toEqual([expect.stringMatching(/^ideal: .*Q = 5000 is outside/)]);
    expect(stages[0].problem).toBeUndefined();
    expect(stages[1].problem).toMatch(/Q = 5000/);
    expect(Math.abs(stages[1].figures!.f0Hz / 3400 - 1)).toBeLessThan(0.1);
    expect(readings[0].results.built).toHaveProperty('measured');
    expect(joints).toHaveLength(3);
  });

  test('values at the ends of what can be soldered leave no NaN behind', () => {
    for (const [ohms, farads] of [
      [1e-3, 1e-15],
      [1e10, 10],
      [1e10, 1e-15],
      [1e-3, 10],
    ]) {
      const values = { R1: ohms, R2: ohms, C1: farads, C2: farads };
      const { layers, stages } = new SheetEvaluator().evaluate(
        withStages([{ ...first, parts: partsOf(values) }, second]),
      );
      for (const { trace } of layers) expect(trace.levelDb).not.toContain(NaN);
      for (const { figures, problem } of stages)
        expect(problem !== undefined || Number.isFinite(figures?.f0Hz)).toBe(true);
    }
  });

  test('a stage that begins at an op-amp’s input is an open joint, not a floating net', () => {
    const gain = makeStage(
      'g',
      topologyOf('non-inverting'),
      { f0Hz: 1000, gain: 10 },
      SHEET.parts,
      'hand',
    );
    const sheet = withStages([first, gain]);
    const ideal = { ...SHEET.parts, opAmp: { name: 'ideal', model: 'ideal' as const } };
    expect(jointsOf({ ...sheet, parts: ideal }, 0, 340)[1]).toMatchObject({
      loadOhms: Infinity,
      lossDb: 0,
    });
    expect(jointsOf(sheet, 0, 340)[1].lossDb).toBeCloseTo(0, 3);
  });

  test.each([
    ['an ideal op-amp', 'ideal' as const],
    ['one without output resistance', { gainBandwidthHz: 1e7, dcGainDb: 110, outputOhms: 0 }],
  ])('%s drives the next stage from next to nothing, and loses nothing', (_, model) => {
    const parts = { ...SHEET.parts, opAmp: { name: 'stiff', model } };
    const joint = jointsOf({ ...withStages([first, second]), parts }, 0, 340)[1];
    expect(joint.sourceOhms).toBeCloseTo(0, 6);
    expect(joint.lossDb).toBeCloseTo(0, 6);
  });

  test('each kind of part is bought from its own series', () => {
    const topology = topologyOf('lc-ladder-low-pass-3');
    const ladder = makeStage(
      'l',
      topology,
      defaultTarget(topology, 1000),
      { ...SHEET.parts, resistors: 'exact', capacitors: 'E6', inductors: 'E3' },
      'hand',
    );
    const decade = (x: number) => Number((x / 10 ** Math.floor(Math.log10(x))).toPrecision(6));
    for (const [id, value] of Object.entries(valuesOf(ladder))) {
      if (id.startsWith('L')) expect([1, 2.2, 4.7]).toContain(decade(value));
      if (id.startsWith('C')) expect([1, 1.5, 2.2, 3.3, 4.7, 6.8]).toContain(decade(value));
    }
    const gm = topologyOf('leapfrog-transconductor-low-pass-3');
    const held = makeStage('g', gm, defaultTarget(gm, 1000), SHEET.parts, 'hand');
    for (const [id, value] of Object.entries(exactValues(held)!))
      if (id.startsWith('G')) expect(valuesOf(held)[id]).toBe(value);
  });
});
