import { isValued, valueOfPart, withFactors } from '@/core/mistakes/mistake';
import { levelsAt } from '@/core/response/levels-at';
import type { Measured } from '@/core/rig/rig';
import { answered, type Answered } from './answer';
import { deadOhms } from './dead-resistance';
import type { NextStep } from './next-step';
import { findSuspects } from './suspects';
import { CLOSE, faulty, levelsOnly } from './testing/board';
import { SUBJECTS } from './testing/circuits';

const level: NextStep = {
  kind: 'level',
  net: 'n1',
  hz: 1000,
  expected: [
    { parts: ['R1'], db: -3, sd: 0.1 },
    { parts: ['C2'], db: -5, sd: 0.1 },
    { parts: [], db: -4.8, sd: 0.1 },
  ],
  apartDb: 2,
};

test('a reading speaks for what it lies nearest to, and for none of what is far away', () => {
  const [first, second, third] = answered(level, -4.98);
  expect(first.parts).toEqual(['C2']);
  expect(second.parts).toEqual([]);
  expect(first.share + second.share + third.share).toBeCloseTo(1, 12);
  expect(third.share).toBeLessThan(1e-9);
  expect(answered(level, -3.05)[0]).toMatchObject({
    parts: ['R1'],
    away: expect.closeTo(-0.5, 9) as number,
  });
  expect(answered(level, 4)).toEqual([]);
});

test('resistances and values are told by their ratio', () => {
  const ohms: NextStep = {
    kind: 'resistance',
    between: ['a', '0'],
    expected: [
      { parts: ['R1'], ohms: 1000, sd: 0.01 },
      { parts: ['R2'], ohms: 1200, sd: 0.01 },
    ],
  };
  expect(answered(ohms, 1190)[0].parts).toEqual(['R2']);
  expect(answered(ohms, 5000)).toEqual([]);
  const part: NextStep = {
    kind: 'part',
    part: 'C1',
    field: 'farads',
    expected: [
      { parts: ['C1'], value: 12e-9, sd: 0.01 },
      { parts: ['C2'], value: 10e-9, sd: 0.01 },
    ],
  };
  expect(answered(part, 10.1e-9)[0].parts).toEqual(['C2']);
});

/** What a meter reads on a board as it is, where the next step wants it. */
function readOn({ circuit, factors, gainDb }: Measured, next: NextStep): number {
  const real = withFactors(circuit, factors);
  switch (next.kind) {
    case 'level':
      return gainDb + levelsAt(real, next.net, Float64Array.of(next.hz))[0];
    case 'resistance':
      return deadOhms(real, ...next.between);
    case 'part': {
      const part = real.parts.find((p) => p.id === next.part);
      return part && isValued(part) ? valueOfPart(part) : NaN;
    }
  }
}

test('what a take leaves open is settled by the measurement that it asks for', () => {
  const settled: boolean[] = [];
  for (const subject of SUBJECTS) {
    const parts = subject.circuit.parts.filter(isValued).map((p) => p.id);
    for (const [i, id] of parts.slice(0, 3).entries()) {
      const board = faulty(subject, `${id}=*1.4`, 20 + i);
      const { next } = findSuspects({
        circuit: subject.circuit,
        probe: 'out',
        take: levelsOnly(board),
        rules: CLOSE,
      });
      // Only where what is wrong is among what is to be told apart.
      if (!next?.expected.some((e) => e.parts.length === 1 && e.parts[0] === id)) continue;
      const [first] = answered(next, readOn(board, next)) as (Answered | undefined)[];
      settled.push(first?.parts.includes(id) ?? false);
    }
  }
  expect(settled.length).toBeGreaterThan(10);
  expect(settled.filter(Boolean).length).toBeGreaterThanOrEqual(0.9 * settled.length);
});
