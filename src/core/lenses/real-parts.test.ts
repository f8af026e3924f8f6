import { BOLTZMANN, ROOM_KELVIN } from '@/core/constants';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { makeStage } from '@/core/sheet/make';
import { withValue } from '@/core/sheet/stage';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { topologyOf } from '@/core/topologies';
import { newSheet } from '@/testing/open-sheet';
import { headroomLens, USUAL_SWING } from './headroom';
import { impedanceLens } from './impedance';
import { noiseLens } from './noise';

/** One RC low-pass of 10 kΩ and 10 nF. */
function rcStage(id: string): Stage {
  const base = newSheet();
  const rc = makeStage(id, topologyOf('rc-low-pass'), { f0Hz: 1000 }, base.parts, 'hand');
  return withValue(withValue(rc, 'R1', 10e3), 'C1', 10e-9);
}

const sheetOf = (stages: Stage[], change: Partial<Sheet> = {}): Sheet => {
  const sheet = newSheet();
  const to = { is: 'load', name: 'Load', ohms: null, farads: null } as const;
  return {
    ...sheet,
    ways: [{ ...sheet.ways[0], stages, to }],
    source: { name: 'Source', ohms: 1000, volts: 1 },
    view: { ...sheet.view, fromHz: 20, toHz: 20_000 },
    ...change,
  };
};

describe('impedance', () => {
  test('is what the closed form says of two RC sections', async () => {
    const joints = await impedanceLens(sheetOf([rcStage('s1'), rcStage('s2')]));
    expect(joints.map((j) => [j.before, j.after])).toEqual([
      ['source', 's1'],
      ['s1', 's2'],
      ['s2', 'load'],
    ]);
    const [, middle] = joints;
    middle.frequenciesHz.forEach((hz, k) => {
      const w = 2 * Math.PI * hz;
      // Behind the first: 1 kΩ and 10 kΩ beside 10 nF; ahead: 10 kΩ and 10 nF in a row.
      const y = { re: 1 / 11e3, im: w * 10e-9 };
      expect(middle.sourceOhms[k] * Math.hypot(y.re, y.im)).toBeCloseTo(1, 6);
      expect(middle.loadOhms[k] / Math.hypot(10e3, 1 / (w * 10e-9))).toBeCloseTo(1, 6);
    });
    expect(middle.worst.lossDb).toBe(Math.min(...middle.lossDb));
    expect(joints[2].loadOhms.every((z) => z === Infinity)).toBe(true);
  });
});

describe('noise', () => {
  test('of an RC is kT/C, all of it the resistors’', async () => {
    const found = await noiseLens(
      sheetOf([rcStage('s1')], { source: { name: 'S', ohms: 0, volts: 1 } }),
    );
    const spot = found.outputDensity[0];
    expect(spot / Math.sqrt(4 * BOLTZMANN * ROOM_KELVIN * 10e3)).toBeCloseTo(1, 3);
    // Over all frequencies sqrt(kT/C); 20 Hz to 20 kHz holds all but a twentieth of it.
    const all = Math.sqrt((BOLTZMANN * ROOM_KELVIN) / 10e-9);
    expect(found.rmsVolts).toBeLessThan(all);
    expect(found.rmsVolts).toBeGreaterThan(0.93 * all);
    expect(found.parts[0]).toMatchObject({ part: 'R1', share: expect.closeTo(1, 6) as number });
    expect(found.rangeDb).toBeCloseTo(20 * Math.log10(found.signalVolts / found.rmsVolts), 9);
  });
});

describe('headroom', () => {
  const follower = makeStage(
    's1',
    topologyOf('buffer'),
    { f0Hz: 1000, gain: 1 },
    newSheet().parts,
    'hand',
  );

  test('of a follower ends with its swing, and above that with its speed', async () => {
    const slow = OP_AMPS.find((o) => /low-power/.test(o.name))!;
    const sheet = sheetOf([follower], {
      parts: { ...newSheet().parts, opAmp: slow },
      source: { name: 'S', ohms: 0, volts: 1 },
    });
    const { opAmps, frequenciesHz } = await headroomLens(sheet);
    const [own] = opAmps;
    expect(own).toMatchObject({ part: 'A1', stage: 's1', assumed: true, first: { by: 'slew' } });
    expect(own.mostVolts[0]).toBeCloseTo(USUAL_SWING / Math.SQRT2, 2);
    const last = frequenciesHz.length - 1;
    const slew = 0.5e6 / (2 * Math.PI * frequenciesHz[last]);
    expect(own.mostVolts[last] / (slew / Math.SQRT2)).toBeCloseTo(1, 2);
    // All of its output comes back: the loop ends at the gain-bandwidth, a quarter turn short.
    expect(own.loop!.crossoverHz / 1e6).toBeCloseTo(1, 2);
    expect(own.loop!.marginDegrees).toBeCloseTo(90, 0);
    expect(own.loop!.noiseGainDb).toBeCloseTo(0, 3);
  });

  test('goes by the supply where the model has one, and is none without an op-amp', async () => {
    const model = {
      gainBandwidthHz: 1e7,
      dcGainDb: 110,
      supply: { plusVolts: 9, minusVolts: 0 },
      headroomVolts: 1,
    };
    const single = { is: 'single', volts: 9, ohms: 10e3, farads: 47e-6 } as const;
    const parts = { ...newSheet().parts, opAmp: { name: 'on nine volts', model } };
    const { opAmps } = await headroomLens(sheetOf([follower], { parts }));
    expect(opAmps[0]).toMatchObject({ swingVolts: 3.5, assumed: false, first: { by: 'swing' } });
    expect((await headroomLens(sheetOf([rcStage('s1')]))).opAmps).toEqual([]);
    // What the sheet is fed by counts where the model says nothing.
    const on = { ...newSheet().parts, supply: single };
    const fed = (await headroomLens(sheetOf([follower], { parts: on }))).opAmps;
    expect(fed[0]).toMatchObject({ swingVolts: 2, assumed: false });
    // Inputs that stop working before the output does give out first.
    const narrow = { ...model, supply: undefined, inputHeadroomVolts: 3 };
    const parts2 = { ...on, opAmp: { name: 'narrow', model: narrow } };
    const [early] = (await headroomLens(sheetOf([follower], { parts: parts2 }))).opAmps;
    expect(early.first.by).toBe('input');
    expect(early.first.volts).toBeCloseTo(1.5 / Math.SQRT2, 2);
  });

  test('warns of an op-amp that wants more noise gain than it has', async () => {
    const fast = OP_AMPS.find((o) => /gains from 5/.test(o.name))!;
    const parts = { ...newSheet().parts, opAmp: fast };
    const [own] = (await headroomLens(sheetOf([follower], { parts }))).opAmps;
    expect(own.needsNoiseGainDb).toBeCloseTo(20 * Math.log10(5), 9);
    const gain = makeStage(
      's1',
      topologyOf('non-inverting'),
      { f0Hz: 1000, gain: 10 },
      parts,
      'hand',
    );
    const [calm] = (await headroomLens(sheetOf([gain], { parts }))).opAmps;
    expect(calm.needsNoiseGainDb).toBeUndefined();
  });
});
