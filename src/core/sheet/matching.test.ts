import { topologyOf } from '@/core/topologies';
import { newSheet } from '@/testing/open-sheet';
import { makeStage } from './make';
import { bestMatching } from './matching';
import type { Sheet, Stage, Wanted } from './schema';

const options = { seed: 3 };

function found(sheet: Sheet, reading: number) {
  const search = bestMatching(sheet, reading, options);
  for (;;) {
    const { done, value } = search.next();
    if (done) return value;
  }
}

const sheetOf = (stage: Stage, wanted?: Wanted): Sheet => {
  const sheet = newSheet();
  const parts = { ...sheet.parts, opAmp: { name: 'ideal', model: 'ideal' } } as const;
  const to = { is: 'load', name: 'Load', ohms: null, farads: null } as const;
  return {
    ...sheet,
    parts,
    ways: [{ ...sheet.ways[0], stages: [stage], to }],
    readings: [
      { id: 'r', measure: { measure: 'level', atHz: 1000 }, ...(wanted ? { wanted } : {}) },
    ],
  };
};

test('a gain that is a ratio is all but sure with its two resistors matched', () => {
  const { parts } = newSheet();
  const gain = makeStage('s1', topologyOf('inverting'), { f0Hz: 1000, gain: -1 }, parts, 'hand');
  const match = found(sheetOf(gain), 0)!;
  expect([...match.parts].sort()).toEqual(['R1', 'R2']);
  expect(match.within).toBeCloseTo(0.004, 9);
  const width = (s: { p5: number; p95: number }) => s.p95 - s.p5;
  expect(width(match.matched) / width(match.loose)).toBeLessThan(0.35);
});

test('a buffered RC has no two parts that could be matched', () => {
  const { parts } = newSheet();
  const rc = makeStage('s1', topologyOf('buffered-rc-low-pass'), { f0Hz: 1000 }, parts, 'hand');
  expect(found(sheetOf(rc), 0)).toBeNull();
});

test('of a notch, matching makes the depth that most boards reach greater', () => {
  const { parts } = newSheet();
  const notch = makeStage('s1', topologyOf('twin-t-notch'), { f0Hz: 1000 }, parts, 'hand');
  const sheet = sheetOf(notch);
  const depth = {
    id: 'depth',
    measure: {
      measure: 'range',
      end: 'lowest',
      fromHz: 700,
      toHz: 1400,
      reference: { from: 'peak' },
    },
    wanted: { is: 'at-most', value: -40 },
  } as const;
  const match = found({ ...sheet, readings: [depth] }, 0)!;
  // Capacitors, which are within five per cent, decide; resistors are within one.
  expect(match.parts.join()).toMatch(/^C\d,C\d$/);
  expect(match.matched.p95).toBeLessThan(match.loose.p95 - 2);
});
