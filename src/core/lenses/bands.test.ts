import { BOLTZMANN, ROOM_KELVIN } from '@/core/constants';
import { makeStage } from '@/core/sheet/make';
import { USUAL_DEVIATIONS } from '@/core/sheet/usual-deviations';
import { withValue } from '@/core/sheet/stage';
import type { Sheet } from '@/core/sheet/schema';
import { topologyOf } from '@/core/topologies';
import { LOW_PASS, newSheet } from '@/testing/open-sheet';
import { BANDED, LensBands, type BandedLens } from './bands';
import { jointCurve } from './impedance';

const BOARDS = 800;
/** Evenly within a tenth: nine boards in ten stay within this. */
const WITHIN = 0.1 * 0.9;
/** Of so many boards, an end of the band is uncertain by this part of the tolerance at the most. */
const SAMPLING = 0.1 * 0.07;

const [OHMS, FARADS] = [10e3, 10e-9];

/** One RC low-pass driven by nothing but volts, of which only the resistor is off. */
function rcSheet(topology: 'rc-low-pass' | 'buffered-rc-low-pass' = 'rc-low-pass'): Sheet {
  const sheet = newSheet({ ...LOW_PASS, order: 2, edgeHz: 1591.5494 });
  const made = makeStage('s1', topologyOf(topology), { f0Hz: 1000 }, sheet.parts, 'hand');
  const stage = withValue(withValue(made, 'R1', OHMS), 'C1', FARADS);
  const to = { is: 'load', name: 'Load', ohms: null, farads: null } as const;
  return {
    ...sheet,
    ways: [{ ...sheet.ways[0], stages: [stage], to }],
    source: { name: 'Source', ohms: 0, volts: 1 },
    view: { ...sheet.view, fromHz: 20, toHz: 20_000 },
    parts: {
      ...sheet.parts,
      opAmp: { name: 'Ideal', model: 'ideal' },
      deviations: { ...USUAL_DEVIATIONS, resistor: 0.1, capacitor: 0 },
    },
  };
}

function bandsOf(sheet: Sheet, lens: BandedLens, boards = BOARDS) {
  const bands = new LensBands(sheet, lens, { boards, seed: 3 });
  bands.draw(boards);
  return bands.result();
}

/** Check both ends of a band against what a curve is with the resistor at either end. */
function expectEnds(
  { at, low, high }: { at: Float64Array; low: Float64Array; high: Float64Array },
  curve: (x: number, ohms: number) => number,
): void {
  at.forEach((x, k) => {
    for (const [found, side] of [
      [low[k], -1],
      [high[k], 1],
    ]) {
      const ends = [side * WITHIN, -side * WITHIN].map((off) => curve(x, OHMS * (1 + off)));
      // Whichever way the curve goes with the resistor.
      const wanted = side < 0 ? Math.min(...ends) : Math.max(...ends);
      const slope = Math.abs(curve(x, OHMS * 1.01) - curve(x, OHMS * 0.99)) / 0.02;
      expect(Math.abs(found - wanted)).toBeLessThan(slope * SAMPLING + 0.02 * Math.abs(wanted));
    }
  });
}

test('delay lies as the closed form of an RC says', () => {
  const { delay } = bandsOf(rcSheet(), 'delay');
  const within = delay.at.map((hz) => (hz < 500 ? 1 : 0));
  const lowest = {
    at: delay.at.filter((_, k) => within[k]),
    low: delay.low.filter((_, k) => within[k]),
    high: delay.high.filter((_, k) => within[k]),
  };
  expectEnds(lowest, (hz, ohms) => {
    const tau = ohms * FARADS;
    return tau / (1 + (2 * Math.PI * hz * tau) ** 2);
  });
});

test('what the pulse charges lies between the fast boards and the slow ones', () => {
  const { pulse } = bandsOf(rcSheet(), 'time', 400);
  const period = 1 / 1591.5494;
  const rising = pulse.at.map((t) => (t > 0.26 * period && t < 3 * period ? 1 : 0));
  expect(rising.reduce((a, b) => a + b)).toBeGreaterThan(20);
  const part = (list: Float64Array) => list.filter((_, k) => rising[k]);
  expectEnds(
    { at: part(pulse.at), low: part(pulse.low), high: part(pulse.high) },
    (t, ohms) => 1 - Math.exp(-(t - pulse.at[0] - startOf(pulse.at, pulse.high)) / (ohms * FARADS)),
  );
});

/** When the pulse begins. */
const startOf = (at: Float64Array, high: Float64Array) => {
  const k = high.findIndex((v) => v > 1e-9);
  return at[k - 1];
};

test('noise of the resistor and what it loads its source with go with it', () => {
  const { output } = bandsOf(rcSheet(), 'noise');
  const dense = (hz: number, ohms: number) =>
    Math.sqrt(4 * BOLTZMANN * ROOM_KELVIN * ohms) / Math.hypot(1, 2 * Math.PI * hz * ohms * FARADS);
  const calm = output.at.findIndex((hz) => hz > 300);
  expectEnds(
    {
      at: output.at.slice(0, calm),
      low: output.low.slice(0, calm),
      high: output.high.slice(0, calm),
    },
    dense,
  );
  const load = bandsOf(rcSheet(), 'impedance')[
    jointCurve({ before: 'source', after: 's1' }, 'loadOhms')
  ];
  expectEnds(load, (hz, ohms) => Math.hypot(ohms, 1 / (2 * Math.PI * hz * FARADS)));
});

test('the room of an op-amp behind an RC grows with its loss', () => {
  const found = bandsOf(rcSheet('buffered-rc-low-pass'), 'headroom');
  const [name] = Object.keys(found);
  expect(name).toBe('A1');
  expectEnds(
    found.A1,
    (hz, ohms) => (12.5 / Math.SQRT2) * Math.hypot(1, 2 * Math.PI * hz * ohms * FARADS),
  );
});

test('bands are the same in however many slices, and their ends in order', () => {
  const sheet = newSheet();
  for (const lens of Object.keys(BANDED) as BandedLens[]) {
    const whole = bandsOf(sheet, lens, 8);
    const sliced = new LensBands(sheet, lens, { boards: 8, seed: 3 });
    for (let i = 0; i < 4; i++) sliced.draw(2);
    expect(sliced.result()).toEqual(whole);
    for (const { low, high } of Object.values(whole))
      low.forEach((v, k) => Number.isNaN(v) || expect(v).toBeLessThanOrEqual(high[k]));
  }
});
