import fc from 'fast-check';
import { makeCircuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import type { Measured } from '@/core/rig/rig';
import { findSuspects, type Findings } from './suspects';
import { CLOSE, EVERYDAY, faulty, levelsOnly } from './testing/board';
import { subjectCalled } from './testing/circuits';

const rc = {
  hz: 1592,
  circuit: makeCircuit([
    UNIT_SOURCE,
    { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 1e4 },
    { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 1e-8 },
  ]),
};
const fourth = subjectCalled('fourth-order low-pass');
const notch = subjectCalled('hum notch');
const feedback = subjectCalled('multiple-feedback low-pass');

const asked = (
  { circuit }: Pick<typeof rc, 'circuit'>,
  board: Measured,
  rules = CLOSE,
  take = levelsOnly(board),
): Findings => findSuspects({ circuit, probe: 'out', take, rules });

const named = ({ ranking: [first] }: Findings): string[] =>
  [...first.parts.map((p) => p.id), ...first.alike.flat()].sort();

describe('one part off', () => {
  test.each([
    [fourth, 'C2=*1.3', 'C2', 1.3],
    [fourth, 'R3=*0.8', 'R3', 0.8],
    [feedback, 'R2=*1.25', 'R2', 1.25],
    [subjectCalled('shelf'), 'C1=*0.6', 'C1', 0.6],
    [subjectCalled('unity low-pass'), 'C1=*1.15', 'C1', 1.15],
  ])('%# is named alone, and its value', (subject, fault, id, factor) => {
    for (const seed of [1, 2]) {
      const found = asked(subject, faulty(subject, fault, seed));
      expect(named(found)).toEqual([id]);
      expect(found.ranking[0].parts[0].factor / factor).toBeCloseTo(1, 1);
      expect(found.ranking[0].chance).toBeGreaterThan(0.8);
      expect(found.ranking[0].explained).toBeGreaterThan(0.8);
      expect(found.ordinary.enough).toBe(false);
    }
  });

  test('with everyday capacitors the difference is not held against what is ordinary', () => {
    const board = faulty(fourth, 'R3=*1.4', 5, { rules: EVERYDAY });
    expect(named(asked(fourth, board, EVERYDAY))).toEqual(['R3']);
  });

  test('a notch whose depth lies between the points of the take is still solved', () => {
    for (const seed of [1, 2, 3]) {
      const found = asked(notch, faulty(notch, 'R8=*0.55', seed));
      expect(named(found)).toEqual(['R8', 'R9']);
      const off = found.ranking[0].parts.find((p) => p.id === 'R8')?.factor;
      const other = found.ranking[0].alikeParts.flat().find((p) => p.id === 'R8')?.factor;
      expect((off ?? other!) / 0.55).toBeCloseTo(1, 1);
    }
  });

  test('the level of the source is nobody’s fault: any gain gives the same findings', () => {
    const board = faulty(feedback, 'C2=*1.3', 4);
    const own = asked(feedback, board);
    fc.assert(
      fc.property(fc.double({ min: -60, max: 60, noNaN: true }), (gain) => {
        const { frequenciesHz, levelDb } = board.take;
        const take = { frequenciesHz, levelDb: levelDb.map((db) => db + gain) };
        const found = asked(feedback, board, CLOSE, take);
        expect(found.gainDb).toBeCloseTo(own.gainDb + gain, 3);
        expect(found.ranking[0].parts[0].id).toBe(own.ranking[0].parts[0].id);
        expect(found.ranking[0].parts[0].factor).toBeCloseTo(own.ranking[0].parts[0].factor, 3);
        expect(found.ranking[0].chance).toBeCloseTo(own.ranking[0].chance, 2);
      }),
      { numRuns: 4 },
    );
  });

  test('phases help, and the other polarity is as good', () => {
    const board = faulty(fourth, 'R2=*0.85', 3);
    const { take } = board;
    const turned = { ...take, phaseDegrees: take.phaseDegrees!.map((d) => d + 180) };
    for (const each of [take, turned])
      expect(named(asked(fourth, board, CLOSE, each))).toEqual(['R2']);
  });
});

describe('what cannot be told apart', () => {
  test('resistor and capacitor of one product are named together, and an ohmmeter tells', () => {
    const { ranking, next } = asked(rc, faulty(rc, 'R1=*1.4', 7));
    expect(ranking).toHaveLength(1);
    const [{ parts, alike, alikeParts }] = ranking;
    expect([parts[0].id, ...alike.flat()].sort()).toEqual(['C1', 'R1']);
    expect(alikeParts[0][0].factor).toBeCloseTo(parts[0].factor, 3);
    expect(next).toMatchObject({ kind: 'resistance', between: ['in', 'out'] });
    if (next?.kind !== 'resistance') return;
    const ohms = Object.fromEntries(next.expected.map((e) => [e.parts[0], e.ohms]));
    expect(ohms.C1).toBeCloseTo(1e4, 0);
    expect(ohms.R1 / 1e4).toBeCloseTo(parts[0].factor, 3);
  });

  test('of two stages alike, the net between them tells which', () => {
    const stage = (n: number, from: string, to: string) =>
      [
        { id: `R${n}`, kind: 'resistor', a: from, b: `p${n}`, ohms: 1e4 },
        { id: `C${n}`, kind: 'capacitor', a: `p${n}`, b: '0', farads: 1e-8 },
        { id: `A${n}`, kind: 'op-amp', inPlus: `p${n}`, inMinus: to, out: to, model: 'ideal' },
      ] as const;
    const two = {
      hz: 1592,
      circuit: makeCircuit([UNIT_SOURCE, ...stage(1, 'in', 'mid'), ...stage(2, 'mid', 'out')]),
    };
    const { ranking, next } = asked(two, faulty(two, 'C2=*1.3', 2));
    const [first] = ranking;
    expect([first.parts[0].id, ...first.alike.flat()].sort()).toEqual(['C1', 'C2', 'R1', 'R2']);
    expect(next).toMatchObject({ kind: 'level' });
    expect(next?.kind === 'level' && ['mid', 'p1', 'p2']).toContain(
      next?.kind === 'level' ? next.net : '',
    );
  });

  test('a part that only sets the level is said not to be seen', () => {
    const gain = subjectCalled('multiple-feedback band-pass');
    const circuit = makeCircuit([
      ...gain.circuit.parts,
      { id: 'Ra', kind: 'resistor', a: 'out', b: 'end', ohms: 1e4 },
      { id: 'Rb', kind: 'resistor', a: 'end', b: '0', ohms: 1e4 },
    ]);
    const board = faulty({ circuit, hz: gain.hz }, 'Ra=*1.5', 2);
    const found = findSuspects({ circuit, probe: 'end', take: levelsOnly(board), rules: CLOSE });
    expect(found.unseen).toEqual(['Ra', 'Rb']);
    expect(found.ordinary.enough).toBe(true);
  });
});

describe('nothing wrong', () => {
  test('a board within its tolerances is said to be that', () => {
    for (const seed of [1, 2, 3, 4]) {
      const { ordinary, mistakes } = asked(
        fourth,
        faulty(fourth, '', seed, { rules: EVERYDAY }),
        EVERYDAY,
      );
      expect(ordinary.enough).toBe(true);
      for (const { chance } of mistakes) expect(chance).toBeLessThan(0.1);
    }
  });
});

describe('two parts off', () => {
  test('a pair is named only where no part alone explains the take', () => {
    const board = faulty(fourth, 'C2=*1.5', 3);
    expect(asked(fourth, board).ranking.every((s) => s.parts.length === 1)).toBe(true);
    const twice = {
      ...fourth,
      circuit: {
        ...fourth.circuit,
        parts: fourth.circuit.parts.map((p) =>
          p.id === 'R3' && p.kind === 'resistor' ? { ...p, ohms: p.ohms * 0.7 } : p,
        ),
      },
    };
    const both = faulty(twice, 'C2=*1.5', 3);
    expect(
      asked(fourth, both)
        .ranking[0].parts.map((p) => p.id)
        .sort(),
    ).toEqual(['C2', 'R3']);
  });
});

describe('classic mistakes', () => {
  const fast = {
    ...fourth,
    circuit: {
      ...fourth.circuit,
      parts: fourth.circuit.parts.map((p) =>
        p.kind === 'op-amp'
          ? { ...p, model: { gainBandwidthHz: 3e6, dcGainDb: 106, outputOhms: 100 } }
          : p,
      ),
    },
  };
  test.each([
    ['C1=C2', 'swapped', ['C1', 'C2']],
    ['C3=*10', 'decade', ['C3']],
    ['R2=*0.1', 'decade', ['R2']],
    ['C4=missing', 'missing', ['C4']],
    ['R3=shorted', 'shorted', ['R3']],
    ['A1=100k', 'slow-op-amp', ['A1']],
  ])('%s is named first', (fault, kind, parts) => {
    const board = faulty(fast, fault, 9, { rules: EVERYDAY });
    const [first] = asked(fast, board, EVERYDAY).mistakes;
    const names = [first, ...first.alike].map(({ kind, parts }) => ({ kind, parts }));
    expect(names).toContainEqual({ kind, parts });
    expect(first.chance).toBeGreaterThan(0.3);
    if (kind === 'slow-op-amp') expect(first.value!.value / 1e5).toBeCloseTo(1, 0);
  });

  test('a coil turned round and a source of high resistance are looked for too', () => {
    const coupled = {
      hz: 1000,
      circuit: makeCircuit([
        UNIT_SOURCE,
        { id: 'L1', kind: 'inductor', a: 'in', b: 'mid', henries: 0.1 },
        { id: 'L2', kind: 'inductor', a: 'mid', b: 'out', henries: 0.1 },
        { id: 'K1', kind: 'coupling', inductors: ['L1', 'L2'], k: 0.4 },
        { id: 'C1', kind: 'capacitor', a: 'mid', b: '0', farads: 1e-6 },
        { id: 'R1', kind: 'resistor', a: 'out', b: '0', ohms: 600 },
      ]),
    };
    const turned = {
      ...coupled,
      circuit: {
        ...coupled.circuit,
        parts: coupled.circuit.parts.map((p) => (p.kind === 'coupling' ? { ...p, k: -p.k } : p)),
      },
    };
    const [first] = asked(coupled, faulty(turned, '', 3)).mistakes;
    expect([first, ...first.alike].map((m) => m.kind)).toContain('reversed');
    const loaded = {
      ...feedback,
      circuit: makeCircuit([
        { ...UNIT_SOURCE, plus: 'g' },
        { id: 'Rg', kind: 'resistor', a: 'g', b: 'in', ohms: 5000 },
        ...feedback.circuit.parts.filter((p) => p.kind !== 'voltage-source'),
      ]),
    };
    const found = asked(feedback, faulty(loaded, '', 3)).mistakes;
    expect(found.map((m) => m.kind)).toContain('source-loading');
  });
});

describe('takes that tell nothing', () => {
  test('too few points, points out of order, a net that is not there', () => {
    const take = { frequenciesHz: [1, 2, 3], levelDb: [0, 0, 0] };
    expect(() => findSuspects({ circuit: rc.circuit, probe: 'out', take })).toThrow(
      'The take has 3 points: with fewer than 5 no part can be told from another.',
    );
    const twice = { frequenciesHz: [1, 2, 2, 3, 4], levelDb: [0, 0, 0, 0, 0] };
    expect(() => findSuspects({ circuit: rc.circuit, probe: 'out', take: twice })).toThrow(
      'Point 3 of the take is not above the one before it.',
    );
    const board = levelsOnly(faulty(rc, '', 1));
    expect(() => findSuspects({ circuit: rc.circuit, probe: 'nowhere', take: board })).toThrow(
      'nowhere',
    );
    expect(() => findSuspects({ circuit: rc.circuit, probe: '0', take: board })).toThrow(
      'Nothing arrives at “0”',
    );
  });
});
