import fc from 'fast-check';
import { AcAnalysis } from '@/core/analysis/ac/ac';
import { DRIVER } from '@/core/library/testing';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import { LOW_PASS, newSheet } from '@/testing/open-sheet';
import { readSheet } from './read';
import { SheetEvaluator } from './evaluate';
import { defaultTarget } from './default-target';
import { makeStage } from './make';
import { outNet, outputNet, portNet, prefixOf } from './nets';
import { pathCircuit, placedWays, waysTogether } from './path-circuit';
import { withDrivers } from './references';
import type { Sheet, Stage, Way } from './schema';
import { outputsOf, withValues } from './stage';

const BASE = newSheet();
const RC = { R1: 1000, C1: 100e-9 };
const stage = (id: string, topology = 'rc-low-pass', target: object = { f0Hz: 1000 }): Stage =>
  makeStage(id, topologyOf(topology), target as never, BASE.parts, 'hand');
const rc = (id: string): Stage => withValues(stage(id), RC, 'hand');
const load = (ohms: number | null): Way['to'] => ({ is: 'load', name: 'Load', ohms, farads: null });
const way = (id: string, change: Partial<Way> = {}): Way => ({
  id,
  name: id,
  from: { is: 'source' },
  stages: [],
  to: load(null),
  ...change,
});
const sheetOf = (ways: Way[], change: Partial<Sheet> = {}): Sheet => ({
  ...newSheet(LOW_PASS, { readings: [] }),
  ways,
  ...change,
});
/** Built level at the end of a way, dB. */
function levelDb(sheet: Sheet, index: number, hz: number): number {
  const analysis = new AcAnalysis(pathCircuit(sheet, index, 'built'));
  const { re, im } = analysis.voltage(outNet(sheet, index), Float64Array.of(hz));
  return 20 * Math.log10(Math.hypot(re[0], im[0]));
}
const dB = (ratio: number) => 20 * Math.log10(ratio);

describe('ways from one source', () => {
  const loads = [load(1000), load(2200), load(4700)];
  const sheet = sheetOf(
    loads.map((to, i) => way(`w${i + 1}`, { to })),
    { source: { ...BASE.source, ohms: 600 } },
  );

  test('share its resistance: each is loaded by all', () => {
    const all = 1 / (1 / 1000 + 1 / 2200 + 1 / 4700);
    for (const i of [0, 1, 2]) {
      expect(levelDb(sheet, i, 1000)).toBeCloseTo(dB(all / (all + 600)), 9);
      expect(waysTogether(sheet, i, 'built')).toEqual([0, 1, 2]);
    }
  });

  test('know nothing of each other from a perfect one, and ideal ones never do', () => {
    const perfect = { ...sheet, source: { ...sheet.source, ohms: 0 } };
    expect(levelDb(perfect, 1, 1000)).toBeCloseTo(0, 9);
    expect(waysTogether(perfect, 1, 'built')).toEqual([1]);
    expect(waysTogether(sheet, 1, 'ideal')).toEqual([1]);
  });

  test('have a resistance of their own on the way', () => {
    const own = sheetOf([way('w1', { from: { is: 'source', ohms: 1000 }, to: load(1000) })]);
    expect(levelDb(own, 0, 1000)).toBeCloseTo(dB(0.5), 9);
  });

  test('solved in one circuit they are what they are each by itself', () => {
    const filtered = sheetOf(
      ['a', 'b', 'c'].map((id, i) => way(id, { stages: [rc(`${id}1`)], to: load(1e4 * (i + 1)) })),
      { source: { ...BASE.source, ohms: 75 } },
    );
    const together = new AcAnalysis(placedWays(filtered, [0, 1, 2], 'built').circuit);
    fc.assert(
      fc.property(fc.double({ min: 10, max: 1e5, noNaN: true }), (hz) => {
        for (const i of [0, 1, 2]) {
          const { re, im } = together.voltage(outNet(filtered, i), Float64Array.of(hz));
          expect(dB(Math.hypot(re[0], im[0]))).toBeCloseTo(levelDb(filtered, i, hz), 9);
        }
      }),
      { numRuns: 20 },
    );
  });
});

describe('a way from an output of a stage', () => {
  const branched = sheetOf([
    way('main', { stages: [rc('s1'), rc('s2')] }),
    way('branch', {
      from: { is: 'output', of: { way: 'main', stage: 's1' } },
      stages: [rc('t1')],
      to: load(10_000),
    }),
  ]);

  test('loads the way it leaves, both built and solved together', () => {
    expect(waysTogether(branched, 0, 'built')).toEqual([0, 1]);
    const alone = { ...branched, ways: [branched.ways[0]] };
    expect(levelDb(branched, 0, 1000)).toBeLessThan(levelDb(alone, 0, 1000) - 0.5);
    // Its own level is that of one section on the loaded node.
    expect(levelDb(branched, 1, 1000)).toBeLessThan(levelDb(alone, 0, 1000) + 6);
  });

  test('leaves an ideal way alone: buffers stand between', () => {
    const { layers } = new SheetEvaluator().evaluate(branched, 1);
    const ideal = layers.find((l) => l.id === 'ideal')!.trace;
    const k = ideal.frequenciesHz.findIndex((hz) => hz > 1000);
    // Two sections of 1 kHz, each as if nothing hung on it, though parts say 1.59 kHz.
    const section = (hz: number) => -10 * Math.log10(1 + (hz / 1000) ** 2);
    expect(ideal.levelDb[k]).toBeCloseTo(2 * section(ideal.frequenciesHz[k]), 6);
  });

  test('every output of every topology can feed one, and is what a reading there says', () => {
    for (const topology of TOPOLOGIES.filter((t) => !t.limits.poles)) {
      const made = stage('s1', topology.id, defaultTarget(topology, 1000));
      for (const { name } of outputsOf(made)) {
        const at = { stage: 's1', port: name };
        const sheet = sheetOf(
          [
            way('main', { stages: [made] }),
            way('tap', { from: { is: 'output', of: { way: 'main', ...at } } }),
          ],
          { readings: [{ id: 'r', measure: { measure: 'level', atHz: 700 }, at }] },
        );
        const { built } = new SheetEvaluator().evaluate(sheet).readings[0].results;
        const read = built && 'measured' in built ? built.measured.value : NaN;
        expect(levelDb(sheet, 1, 700)).toBeCloseTo(read, 6);
      }
    }
  });

  test('what is not there is refused in words, for the way alone', () => {
    const [main, branch] = branched.ways;
    const bypassed = {
      ...branched,
      ways: [{ ...main, stages: main.stages.map((s) => ({ ...s, bypassed: true })) }, branch],
    };
    expect(() => pathCircuit(bypassed, 1, 'built')).toThrow(
      /“branch” leaves an output of stage “s1”, which is not there or is bypassed/,
    );
    expect(levelDb({ ...bypassed, ways: [bypassed.ways[0]] }, 0, 1000)).toBeCloseTo(0, 9);
  });

  test.each<[string, Way['from'], RegExp]>([
    [
      'itself',
      { is: 'output', of: { way: 'branch', stage: 't1' } },
      /must name the stage of a way that stands before it/,
    ],
    [
      'no stage',
      { is: 'output', of: { way: 'main', stage: 's9' } },
      /there is no such stage or output/,
    ],
    [
      'no way',
      { is: 'output', of: { way: 'nowhere', stage: 's1' } },
      /a way that stands before it/,
    ],
  ])('a document whose way leaves %s is not read', (_, from, words) => {
    const [main, branch] = branched.ways;
    expect(() => readSheet({ ...branched, ways: [main, { ...branch, from }] })).toThrow(words);
  });
});

describe('names', () => {
  test('the first way’s nets are bare, those of others stand behind its name', () => {
    const sheet = sheetOf([
      way('a', { stages: [rc('s1'), rc('s2')] }),
      way('b', { stages: [rc('s1')] }),
    ]);
    expect([prefixOf(sheet, 0), prefixOf(sheet, 1)]).toEqual(['', 'b:']);
    expect([outNet(sheet, 0), outNet(sheet, 1)]).toEqual(['out', 'b:out']);
    expect(portNet(sheet, 0, 's1')).toBe('s1.out');
    expect(portNet(sheet, 0, 's2')).toBe('out');
    expect(portNet(sheet, 1, 's1')).toBe('b:out');
    expect(portNet(sheet, 0, 's9')).toBeUndefined();
    expect(outputNet(sheet, { way: 'b', stage: 's1' })).toEqual({ way: 1, net: 'b:out' });
    expect(outputNet(sheet, { way: 'x', stage: 's1' })).toBeUndefined();
  });

  test('no two parts of all ways are called alike', () => {
    const sheet = sheetOf([
      way('a', { stages: [rc('s1'), stage('s2', 'unity-low-pass', { f0Hz: 1e3, q: 1 })] }),
      way('b', { stages: [rc('s1'), rc('s2')] }),
    ]);
    const { circuit, owners } = placedWays(sheet, [0, 1], 'built');
    const ids = circuit.parts.map((p) => p.id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const [id, owner] of owners) {
      expect(ids).toContain(id);
      expect(owner.way).toBe(id.startsWith('b:') ? 1 : 0);
    }
  });
});

describe('ends', () => {
  const {
    reOhms: ohms,
    qms: mechanicalQ,
    qes: electricalQ,
    fsHz: resonanceHz,
  } = DRIVER.model as unknown as Record<string, number>;
  const into = (inverted: boolean): Sheet =>
    withDrivers(
      sheetOf([way('w', { to: { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted } })], {
        source: { ...BASE.source, ohms: 4 },
      }),
      [DRIVER],
    );

  test('a loudspeaker loads as its voice coil does far from its resonances', () => {
    // Between resonance and the coil's own inductance only its resistance is left.
    const { ways, ...rest } = into(false);
    const [w] = ways;
    const coil = { ...DRIVER.model, leHenries: 1e-9, qms: 2, qes: 1 };
    const to: Way['to'] & { model?: unknown } = { ...w.to, model: coil };
    const sheet: Sheet = { ...rest, ways: [{ ...w, to }] };
    expect(levelDb(sheet, 0, 50 * resonanceHz)).toBeCloseTo(dB(ohms / (ohms + 4)), 2);
    expect(levelDb(sheet, 0, resonanceHz)).toBeCloseTo(dB((3 * ohms) / (3 * ohms + 4)), 6);
    expect(mechanicalQ / electricalQ).toBe(10);
  });

  test('turned round it loads the same', () => {
    for (const hz of [20, resonanceHz, 1000])
      expect(levelDb(into(true), 0, hz)).toBeCloseTo(levelDb(into(false), 0, hz), 12);
  });

  test('a mix loads by its own input', () => {
    const to: Way['to'] = { is: 'mix', name: 'Mix', ohms: 10_000, farads: null, gain: 0.5 };
    const sheet = sheetOf([way('w', { from: { is: 'source', ohms: 10_000 }, to })]);
    expect(levelDb(sheet, 0, 100)).toBeCloseTo(dB(0.5), 9);
  });
});
