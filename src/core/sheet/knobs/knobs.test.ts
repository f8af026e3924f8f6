import { newSheet } from '@/testing/open-sheet';
import { travelLens } from '@/core/lenses/travel';
import { fitted } from '@/core/fit/fit-circuit';
import { topologyOf } from '@/core/topologies';
import { makeStage } from '../make';
import type { Sheet } from '../schema';
import { valuesOf } from '../stage';
import { evennessOf } from './evenness';
import { withKnob, type KnobPlan } from './make-knob';
import { stretchingKnob, withStretch } from './stretch';

const stretchedKnob = (...asked: Parameters<typeof stretchingKnob>) =>
  fitted(stretchingKnob(...asked));

/** A buffered RC whose corner is turned: 10 nF, 1 kΩ in line with 0 to 100 kΩ. */
function turnable(plan: Partial<KnobPlan> = {}): Sheet {
  const sheet = newSheet();
  const parts = { ...sheet.parts, opAmp: { name: 'ideal', model: 'ideal' } } as const;
  const rc = makeStage('s1', topologyOf('buffered-rc-low-pass'), { f0Hz: 1000 }, parts, 'hand', {
    farads: 10e-9,
  });
  const { stage, moves, at } = withKnob(rc, {
    as: 'variable',
    parts: ['R1'],
    trackOhms: 100_000,
    seriesOhms: 1000,
    taper: 'linear',
    ...plan,
  });
  const to = { is: 'load', name: 'Load', ohms: null, farads: null } as const;
  return {
    ...sheet,
    parts,
    source: { name: 'S', ohms: 0, volts: 1 },
    ways: [{ ...sheet.ways[0], stages: [stage], to }],
    controls: [{ id: 'c1', name: 'Cut-off', is: 'turn', at, moves }],
    readings: [
      {
        id: 'edge',
        measure: { measure: 'edge', downDb: 3.0103, side: 'upper', reference: { from: 'plateau' } },
      },
      { id: 'low', measure: { measure: 'level', atHz: 1 } },
    ],
    view: { ...sheet.view, fromHz: 20, toHz: 50_000 },
  };
}

const corner = (ohms: number) => 1 / (2 * Math.PI * ohms * 10e-9);

describe('the travel of a knob', () => {
  test('goes where the closed form says, row by row', async () => {
    const { rows } = await travelLens(turnable(), { control: 'c1' });
    expect(rows.map((r) => r.at)).toEqual(
      [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1].map(
        (x) => expect.closeTo(x, 9) as number,
      ),
    );
    for (const { at, readings, pole, ohms, highestDb } of rows) {
      const f0 = corner(1000 + Math.max(1, at * 100_000));
      expect(ohms).toBeCloseTo(at * 100_000, 6);
      expect(readings.edge / f0).toBeCloseTo(1, 4);
      expect(pole!.f0Hz / f0).toBeCloseTo(1, 6);
      expect(pole!.q).toBeNull();
      expect(highestDb).toBeLessThan(0);
    }
  });

  test('is told to feel most even by the taper that makes it so', async () => {
    const { tapers, taper } = await travelLens(turnable(), { control: 'c1' });
    expect(taper).toBe('linear');
    // A corner goes as one over the resistance: a track slow at first is nearest to equal ratios.
    expect(tapers.edge.map((t) => t.taper)).toEqual(['audio', 'linear', 'reverse-audio']);
    const [best, next] = tapers.edge.map((t) => t.evenness.steepest!);
    expect(best).toBeGreaterThanOrEqual(1);
    expect(next).toBeGreaterThan(2 * best);
    // What the knob does not move is not judged.
    expect(tapers.low[0].evenness.steepest).toBeNull();
  });

  test('of a knob that is gone cannot be told', async () => {
    await expect(travelLens(turnable(), { control: 'nowhere' })).rejects.toThrow(
      /The knob is gone/,
    );
  });
});

test('evenness is one for equal steps, by ratio of frequencies and by difference of levels', () => {
  expect(evennessOf([100, 200, 400, 800], 'hertz')).toEqual({
    steepest: expect.closeTo(1, 9) as number,
    oneWay: true,
  });
  expect(evennessOf([0, 1, 2, 3], 'decibels').steepest).toBeCloseTo(1, 9);
  expect(evennessOf([0, 3, 3, 3], 'decibels').steepest).toBeCloseTo(3, 9);
  expect(evennessOf([0, 2, 1, 3], 'decibels').oneWay).toBe(false);
  expect(evennessOf([5, 5, 5], 'decibels').steepest).toBeNull();
  expect(evennessOf([5, NaN, 5], 'hertz').steepest).toBeNull();
});

describe('a knob is stretched over a range', () => {
  const reach = { reading: 'edge', from: 300, to: 3000 };

  test('as the closed form says, with parts that reach a little further', async () => {
    const sheet = turnable();
    const found = stretchedKnob(sheet, 'c1', reach);
    expect(found.fromOhms * corner(1) ** -1 * 300).toBeCloseTo(1, 4);
    expect(found.toOhms / (corner(1) / 3000)).toBeCloseTo(1, 4);
    expect(found.turned).toBe(true);
    expect(found.seriesOhms).toBeLessThanOrEqual(found.toOhms);
    expect(found.seriesOhms + found.trackOhms).toBeGreaterThanOrEqual(found.fromOhms);

    const stretched = { ...sheet, ...withStretch(sheet, 'c1', reach, found) };
    const { rows } = await travelLens(stretched, { control: 'c1' });
    expect(rows[0].readings.edge).toBeLessThanOrEqual(300);
    expect(rows[10].readings.edge).toBeGreaterThanOrEqual(3000);
    expect(stretched.controls[0].reach).toEqual(reach);
  });

  test('and gets the resistor in line that it lacks', () => {
    const sheet = turnable({ seriesOhms: 0 });
    const found = stretchedKnob(sheet, 'c1', reach);
    const [stage] = withStretch(sheet, 'c1', reach, found).ways[0].stages;
    expect(Object.values(valuesOf(stage))).toContain(found.seriesOhms);
  });

  test('unless nothing reaches it', () => {
    expect(() => stretchedKnob(turnable(), 'c1', { reading: 'low', from: -60, to: 0 })).toThrow(
      /No resistance of the knob brings the reading to/,
    );
  });
});
