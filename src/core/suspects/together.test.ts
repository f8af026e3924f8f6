import { makeCircuit, type Circuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { spaced } from '@/core/response/landmarks';
import { readFault } from '@/core/rig/fault';
import { measureBoard } from '@/core/rig/rig';
import { findSuspects, type TakeRequest } from './suspects';

const RULES = { resistor: { tolerance: 0.01 }, capacitor: { tolerance: 0.01 } };
const HZ = Array.from(spaced(20, 20_000, 61));

/** Two low-passes alike, a follower between them. */
const TWINS = makeCircuit([
  UNIT_SOURCE,
  { id: 'R1', kind: 'resistor', a: 'in', b: 'x', ohms: 10_000 },
  { id: 'C1', kind: 'capacitor', a: 'x', b: '0', farads: 15e-9 },
  { id: 'A1', kind: 'op-amp', inPlus: 'x', inMinus: 'mid', out: 'mid', model: 'ideal' },
  { id: 'R2', kind: 'resistor', a: 'mid', b: 'out', ohms: 10_000 },
  { id: 'C2', kind: 'capacitor', a: 'out', b: '0', farads: 15e-9 },
]);
/** The same with an ampere into it: its volts there are ohms. */
const AMPERE: Circuit = {
  ...TWINS,
  parts: TWINS.parts.map((p) =>
    p.id === UNIT_SOURCE.id
      ? { id: p.id, kind: 'current-source', from: '0', to: 'in', acAmps: 1 }
      : p,
  ),
};

/** A take of one board, at an unknown level but for ohms. */
function taken(circuit: Circuit, probe: string, fault: string, seed: number): TakeRequest {
  const isOhms = circuit === AMPERE;
  const { take } = measureBoard({
    circuit,
    probe,
    seed,
    rules: RULES,
    faults: [readFault(fault, circuit)],
    frequenciesHz: HZ,
    noiseDb: 0.05,
    ...(isOhms ? { gainDb: 0.05 } : {}),
  });
  const { frequenciesHz, levelDb } = take;
  return {
    circuit,
    probe,
    take: { frequenciesHz, levelDb },
    rules: RULES,
    ...(isOhms ? { gainSdDb: 0.1 } : {}),
  };
}

const group = (requests: readonly TakeRequest[]) => {
  const [first, ...beside] = requests;
  const { ranking } = findSuspects({ ...first, beside });
  return [ranking[0].parts.map((p) => p.id), ...ranking[0].alike].flat().sort();
};

describe('takes of one board, weighed together', () => {
  test.each(['C1=*1.3', 'R1=*0.8', 'C2=*1.25', 'R2=*1.2'])(
    'with %s: the output alone leaves four parts, a second net two, what the source sees one',
    (fault) => {
      const of = (circuit: Circuit, probe: string) => taken(circuit, probe, fault, 7);
      const output = of(TWINS, 'out');
      expect(group([output])).toEqual(['C1', 'C2', 'R1', 'R2']);
      const half = fault.startsWith('C1') || fault.startsWith('R1') ? ['C1', 'R1'] : ['C2', 'R2'];
      expect(group([output, of(TWINS, 'mid')])).toEqual(half);
      // In whichever order they stand.
      expect(group([of(TWINS, 'mid'), output])).toEqual(half);
      if (half.includes('C1'))
        expect(group([output, of(AMPERE, 'in')])).toEqual([fault.slice(0, 2)]);
    },
  );

  test('each level is unknown by itself, and a known one says how much all is off', () => {
    const output = taken(TWINS, 'out', 'C1=*1.3', 3);
    const mid = taken(TWINS, 'mid', 'C1=*1.3', 3);
    const louder: TakeRequest = {
      ...mid,
      take: { ...mid.take, levelDb: mid.take.levelDb.map((db) => db - 17) },
    };
    const found = (beside: TakeRequest) => findSuspects({ ...output, beside: [beside] });
    const [a, b] = [found(mid), found(louder)];
    expect(b.ranking[0].parts[0].factor).toBeCloseTo(a.ranking[0].parts[0].factor, 6);
    expect(b.gainDb).toBeCloseTo(a.gainDb, 6);

    const ohms = findSuspects({ ...taken(AMPERE, 'in', 'R1=*1.2', 5), beside: [] });
    expect(ohms.ranking[0].parts).toMatchObject([{ id: 'R1' }]);
    expect(ohms.ranking[0].parts[0].factor).toBeCloseTo(1.2, 1);
    expect(Math.abs(ohms.gainDb)).toBeLessThan(0.3);
  });

  test('a mistake is looked for in all of them, also where a take does not feel it', () => {
    const swapped = [taken(TWINS, 'out', 'R1=100k', 4), taken(AMPERE, 'in', 'R1=100k', 4)];
    const [first, ...beside] = swapped;
    const { mistakes } = findSuspects({ ...first, beside });
    expect(mistakes[0]).toMatchObject({ kind: 'decade', parts: ['R1'] });
    expect(mistakes[0].chance).toBeGreaterThan(0.8);
  });

  test('ohms alone ask for no level, and too few points of any are refused', () => {
    const ohms = taken(AMPERE, 'in', 'C2=*1.3', 5);
    const { next, unseen } = findSuspects(ohms);
    expect(next?.kind ?? 'none').not.toBe('level');
    expect(unseen.sort()).toEqual(['C2', 'R2']);
    const few = { frequenciesHz: [1, 2], levelDb: [0, 0] };
    expect(() => findSuspects({ ...ohms, beside: [{ ...ohms, take: few }] })).toThrow(/2 points/);
  });
});
