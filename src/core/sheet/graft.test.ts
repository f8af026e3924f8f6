import { acResponse } from '@/core/analysis/ac/ac';
import { readCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { groupsOf, sameGroups } from '@/core/drawing/grow/groups';
import { bodiesOf, overlap } from '@/core/drawing/shapes';
import { netsOfDrawing } from '@/core/topologies/instantiate';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import { defaultTarget } from './default-target';
import { SheetEvaluator } from './evaluate';
import { readingName } from './words';
import { stageFault } from './faults';
import { formulaTruth } from './formulas';
import { gate } from './gate';
import { grafted, withDrawing, type Graft } from './graft';
import { graftSheet } from './graft-sheet';
import { DEFAULT_PARTS, makeSheet, makeStage } from './make';
import { listenAt } from '@/core/drawing/grow/change';
import { ownStage, stageOfCircuit } from './own-stage';
import { placesOf } from './places';
import { pathCircuit } from './path-circuit';
import { readSheet } from './read';
import type { Sheet, Stage } from './schema';
import { drawingOf, drawnParts, outputsOf, valuesOf } from './stage';

const AT = '2026-11-25T08:00:00.000Z';
const stageOf = (id: string): Stage =>
  makeStage('s1', topologyOf(id), defaultTarget(topologyOf(id), 1000), DEFAULT_PARTS, 'hand');
const sheetWith = (...stages: Stage[]): Sheet => {
  const sheet = makeSheet({
    id: 'x',
    title: 'Test',
    at: AT,
    ask: { kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 1000 },
  });
  return { ...sheet, ways: [{ ...sheet.ways[0], stages }] };
};
const groups = (stage: Stage) => groupsOf(drawingOf(stage));
const levelAt = (sheet: Sheet, hz: number): number => {
  const { re, im } = acResponse(pathCircuit(sheet, 0, 'built'), {
    frequenciesHz: [hz],
    probes: ['out'],
  }).probes.out;
  return 20 * Math.log10(Math.hypot(re[0], im[0]));
};

/** The nets of a stage with one part more, taken out again: exactly those it had. */
const GROWING: [string, (part: string) => Graft][] = [
  ['across', (part) => ({ do: 'across', part, new: { kind: 'capacitor', value: 1e-9 } })],
  [
    'to ground',
    (part) => ({ do: 'to-ground', from: { part, pin: 'a' }, new: { kind: 'resistor' } }),
  ],
];

describe.each(
  TOPOLOGIES.filter((t) => t.order <= 3 && t.id !== 'buffer').map((t) => [t.id, t] as const),
)('grafts on %s', (id) => {
  const stage = stageOf(id);
  const first = drawnParts(stage).find((p) => 'a' in p.nets)!;
  test.each(GROWING)('%s, and out again', (_, graftOf) => {
    const graft = graftOf(first.id);
    const before = groups(stage);
    const onGround = first.nets.a === '0';
    if (graft.do === 'to-ground' && onGround) {
      expect(() => grafted(stage, graft)).toThrow(/ground/);
      return;
    }
    const changed = grafted(stage, graft);
    expect(stageFault(changed, 's')).toBeNull();
    const fresh = drawnParts(changed).filter((p) => !(p.id in stage.parts) && p.kind !== 'op-amp');
    expect(fresh).toHaveLength(1);
    const wanted = before.map((g) => [...g]);
    const netOf = (pin: string) => wanted.find((g) => g.includes(pin))!;
    const ground = wanted.find((g) => g.includes('0')) ?? [];
    netOf(`${first.id}.a`).push(`${fresh[0].id}.a`);
    (graft.do === 'across' ? netOf(`${first.id}.b`) : ground).push(`${fresh[0].id}.b`);
    if (ground.length > 0 || graft.do === 'across')
      expect(sameGroups(groups(changed), wanted)).toBe(true);
    const out = grafted(changed, { do: 'remove', part: fresh[0].id });
    expect(sameGroups(groups(out), before)).toBe(true);
    expect(out.parts).toEqual(stage.parts);
    const bodies = bodiesOf(drawingOf(changed), 22);
    bodies.forEach((a, i) => bodies.slice(i + 1).forEach((b) => expect(overlap(a, b)).toBe(false)));
  });
});

test('a capacitor across a feedback resistor does what 1/(2 pi R C) says', () => {
  const bare = sheetWith(stageOf('inverting'));
  const ideal = {
    ...bare,
    parts: { ...bare.parts, opAmp: { name: 'ideal', model: 'ideal' as const } },
  };
  const { sheet, words } = graftSheet(ideal, {
    way: 'across',
    at: 'R2',
    new: { kind: 'capacitor', value: 1e-9 },
  });
  expect(words).toBe('a capacitor across R2');
  const { R2 } = valuesOf(sheet.ways[0].stages[0]);
  const corner = 1 / (2 * Math.PI * R2 * 1e-9);
  expect(levelAt(sheet, corner) - levelAt(ideal, corner)).toBeCloseTo(-10 * Math.log10(2), 6);
  gate(sheet);
  expect(readSheet(JSON.parse(JSON.stringify(sheet)))).toEqual(sheet);
});

test('in line, swap and short change the nets as they say', () => {
  const stage = stageOf('rc-low-pass');
  const inLine = grafted(stage, {
    do: 'in-line',
    part: 'C1',
    new: { kind: 'resistor', value: 10 },
  });
  const { parts } = netsOfDrawing(drawingOf(inLine));
  const [r1, c1, r2] = ['R1', 'C1', 'R2'].map((id) => parts.find((p) => p.id === id)!.nets);
  expect(c1.a).toBe(r1.b);
  expect(c1.b).toBe(r2.a);
  expect(r2.b).toBe('0');
  const swapped = grafted(inLine, { do: 'swap', part: 'R2', new: { kind: 'potentiometer' } });
  expect(swapped.parts.P1.value).toBe(10);
  expect('R2' in swapped.parts).toBe(false);
  const shorted = grafted(inLine, { do: 'short', part: 'R2' });
  expect(sameGroups(groups(shorted), groups(stage))).toBe(true);
});

test('two light-emitting diodes stand where one diode stood', () => {
  const stage = stageOf('rc-low-pass');
  const diode = grafted(stage, { do: 'across', part: 'C1', new: { kind: 'diode' } });
  const led = grafted(diode, { do: 'swap', part: 'D1', new: { kind: 'light-emitting-diode' } });
  const two = grafted(led, { do: 'in-line', part: 'D1', new: { kind: 'light-emitting-diode' } });
  expect(drawnParts(two).filter((p) => p.kind === 'light-emitting-diode')).toHaveLength(2);
  expect(new SheetEvaluator().evaluate(sheetWith(two)).problems).toEqual([]);
});

test.each<[string, Graft, RegExp]>([
  ['an unknown part', { do: 'remove', part: 'R9' }, /no part “R9”/],
  ['an unknown kind', { do: 'across', part: 'R1', new: { kind: 'teapot' } }, /“teapot”/],
  ['a name in use', { do: 'across', part: 'R1', new: { kind: 'resistor', id: 'C1' } }, /already/],
  [
    'a value beyond bounds',
    { do: 'across', part: 'R1', new: { kind: 'capacitor', value: 99 } },
    /at most 10/,
  ],
  [
    'a value for what has none',
    { do: 'across', part: 'R1', new: { kind: 'diode', value: 1 } },
    /no value/,
  ],
  ['ends of another number', { do: 'swap', part: 'R1', new: { kind: 'npn-transistor' } }, /2 ends/],
  [
    'a pin it has not',
    { do: 'in-line', part: 'R1', pin: 'x', new: { kind: 'resistor' } },
    /no pin “x”/,
  ],
])('%s is refused in words, and the stage stays', (_, graft, words) => {
  const stage = stageOf('rc-low-pass');
  const before = structuredClone(stage);
  expect(() => grafted(stage, graft)).toThrow(words);
  expect(stage).toEqual(before);
});

test('a grafted stage still answers its ask ideally, and shows what it is', () => {
  const stage = grafted(stageOf('unity-low-pass'), {
    do: 'across',
    part: 'R1',
    new: { kind: 'capacitor', value: 10e-9 },
  });
  const { layers, stages, problems } = new SheetEvaluator().evaluate(sheetWith(stage));
  expect(problems).toEqual([]);
  const [ideal, built] = layers.map((l) => l.trace.levelDb.at(-1)!);
  expect(built).toBeGreaterThan(ideal + 6);
  expect(stages[0].figures).toBeUndefined();
  expect(stages[0].thumbnail).toBeDefined();
});

describe('a circuit file as a stage', () => {
  const PARTS: Part[] = [
    { id: 'V1', kind: 'voltage-source', plus: 'in', minus: 'gnd', acVolts: 1 },
    { id: 'V2', kind: 'voltage-source', plus: 'vcc', minus: 'gnd', dcVolts: 12 },
    { id: 'C/in', kind: 'capacitor', a: 'in', b: 'base', farads: 1e-6 },
    { id: 'R1', kind: 'resistor', a: 'vcc', b: 'base', ohms: 68e3 },
    { id: 'R2', kind: 'resistor', a: 'base', b: 'gnd', ohms: 15e3 },
    { id: 'R3', kind: 'resistor', a: 'vcc', b: 'out', ohms: 3300 },
    { id: 'R4', kind: 'resistor', a: 'e', b: 'gnd', ohms: 820 },
    {
      id: 'Q1',
      kind: 'transistor',
      collector: 'out',
      base: 'base',
      emitter: 'e',
      model: {
        polarity: 'npn',
        saturationAmps: 1e-14,
        betaForward: 150,
        betaReverse: 1,
        baseEmitterFarads: 0,
        baseCollectorFarads: 0,
        transitSeconds: 0,
      },
    },
  ];
  const circuit: Circuit = readCircuit({
    format: 'jaunty-reed/circuit',
    version: 1,
    title: '',
    ground: 'gnd',
    parts: PARTS,
  });

  test('does what the file does', () => {
    const stage = stageOfCircuit(circuit, { id: 's1' });
    const sheet = sheetWith(stage);
    const bare: Sheet = {
      ...sheet,
      ways: [{ ...sheet.ways[0], to: { is: 'load', name: '', ohms: null, farads: null } }],
    };
    gate(bare);
    const { re, im } = acResponse(circuit, { frequenciesHz: [1000], probes: ['out'] }).probes.out;
    expect(levelAt(bare, 1000)).toBeCloseTo(20 * Math.log10(Math.hypot(re[0], im[0])), 9);
  });

  test('says what it cannot tell', () => {
    const without = { ...circuit, parts: circuit.parts.slice(1) };
    expect(stageOfCircuit(without, { id: 's1' }).drawing).toBeDefined();
    expect(() => stageOfCircuit(circuit, { id: 's', output: 'nowhere' })).toThrow(
      /no net “nowhere”/,
    );
    const twice = {
      ...circuit,
      parts: [...circuit.parts, { ...PARTS[0], id: 'V9', plus: 'e' } as Part],
    };
    expect(() => stageOfCircuit(twice, { id: 's' })).toThrow(/Several sources/);
  });
});

describe('a circuit traced from nothing', () => {
  const empty = ownStage('s1');

  test('may be stored and looked at before anything is joined', () => {
    gate(sheetWith(empty));
    const { problems } = new SheetEvaluator().evaluate(sheetWith(empty));
    for (const problem of problems) expect(problem).not.toMatch(/undefined|NaN/);
  });

  test('goes on from open ends, joins them, and hears where it is told to', () => {
    const put = (
      stage: Stage,
      kind: string,
      ends: Extract<Graft, { do: 'put' }>['ends'],
      value?: number,
    ) =>
      grafted(stage, { do: 'put', ends, new: { kind, ...(value === undefined ? {} : { value }) } });
    let stage = put(empty, 'resistor', { a: { net: 'in' }, b: 'open' }, 10e3);
    stage = put(stage, 'capacitor', { a: { part: 'R1', pin: 'b' }, b: 'ground' }, 10e-9);
    stage = withDrawing(stage, listenAt(drawingOf(stage), { part: 'C1', pin: 'a' }), stage.parts);
    const sheet = sheetWith(stage);
    const open: Sheet = {
      ...sheet,
      ways: [{ ...sheet.ways[0], to: { is: 'load', name: '', ohms: null, farads: null } }],
    };
    gate(open);
    expect(levelAt(open, 1 / (2 * Math.PI * 10e3 * 10e-9))).toBeCloseTo(-10 * Math.log10(2), 9);
    expect(placesOf(stage).map((p) => p.name)).toEqual(['in', 'out']);
  });

  test('refuses what is joined to nothing', () => {
    const lost = {
      do: 'put',
      ends: { a: 'open', b: 'ground' },
      new: { kind: 'resistor' },
    } as const;
    expect(() => grafted(empty, lost)).toThrow(/joined to nothing cannot exist/);
  });
});

describe('what still holds of the formulas', () => {
  const stage = stageOf('rc-low-pass');

  test('everything, where what came in does nothing to the curve', () => {
    const big = grafted(stage, { do: 'across', part: 'C1', new: { kind: 'resistor', value: 1e9 } });
    expect(formulaTruth(big)!.words).toMatch(/every formula still holds/);
    expect(formulaTruth(stage)).toBeUndefined();
  });

  test('the part of the axis where they agree, and how far off they are elsewhere', () => {
    const small = grafted(stage, {
      do: 'across',
      part: 'R1',
      new: { kind: 'capacitor', value: 1e-12 },
    });
    const { holds, worst, words } = formulaTruth(small)!;
    const { R1, C1 } = valuesOf(stage);
    // A capacitor across R1 makes a zero at 1/(2 pi R1 C): up to a tenth of it nobody can tell.
    expect(holds[0].toHz).toBeGreaterThan(0.1 / (2 * Math.PI * R1 * 1e-12) > 1e5 ? 9e4 : 1e3);
    expect(Math.abs(worst!.db)).toBeLessThan(20 * Math.log10(1 + C1 / 1e-12));
    expect(words).toMatch(/With C2 in the circuit/);
  });

  test('nothing, where a part that they speak of is gone', () => {
    const bare = grafted(stage, { do: 'remove', part: 'C1' });
    expect(formulaTruth(bare)).toMatchObject({ gone: ['C1'], holds: [] });
    expect(formulaTruth(bare)!.words).toMatch(/C1, which the circuit no longer has/);
  });
});

test('another output is passed on, listened to and read', () => {
  const loop = stageOf('state-variable-low-pass');
  expect(outputsOf(loop).map((p) => p.name)).toEqual(['low', 'high', 'band']);
  const band = { ...loop, heard: 'band' };
  expect(stageFault(band, 's')).toBeNull();
  const { f0Hz } = topologyOf('state-variable-low-pass').figures(valuesOf(loop));
  // A low-pass falls a hundredfold two decades under where a band-pass does: there they part.
  const [low, high] = [levelAt(sheetWith(loop), f0Hz / 100), levelAt(sheetWith(band), f0Hz / 100)];
  expect(low - high).toBeGreaterThan(35);
  const read = (at: { stage: string; port: string }) => {
    const sheet = sheetWith(loop);
    const reading = { id: 'r', measure: { measure: 'level' as const, atHz: f0Hz / 100 }, at };
    const [found] = new SheetEvaluator().evaluate({ ...sheet, readings: [reading] }).readings;
    const built = found.results.built;
    return built && 'measured' in built ? built.measured.value : NaN;
  };
  expect(read({ stage: 's1', port: 'band' })).toBeCloseTo(high, 2);
  const [first] = sheetWith(loop).readings;
  const named = readingName({ ...first, at: { stage: 's1', port: 'band' } }, 'point', ['s0', 's1']);
  expect(named).toBe(`${readingName(first)}, band of stage 2`);
  // An output that is gone takes no document with it: its reading says so.
  const gone: Sheet = { ...sheetWith(loop), readings: [{ ...first, at: { stage: 's9' } }] };
  gate(gone);
  const [{ results }] = new SheetEvaluator().evaluate(gone).readings;
  expect(results.built && 'error' in results.built && results.built.error).toMatch(/is gone or/);
  const nowhere = sheetWith({ ...loop, heard: 'nowhere' });
  expect(() => gate(nowhere)).toThrow(/no output “nowhere”/);
});

test('ways run from the source or from an output, share what they share, and are read apart', () => {
  const loop = stageOf('state-variable-low-pass');
  const base = sheetWith(loop);
  const fed: Sheet = {
    ...base,
    ways: [
      base.ways[0],
      {
        id: 'w2',
        name: 'Band',
        from: { is: 'output', of: { way: 'w1', stage: 's1', port: 'band' } },
        stages: [],
        to: { is: 'load', name: 'Meter', ohms: 10_000, farads: null },
      },
    ],
  };
  gate(fed);
  const second = new SheetEvaluator().evaluate(fed, 1).layers.find((l) => l.id === 'built')!;
  const direct = new SheetEvaluator()
    .evaluate(sheetWith({ ...loop, heard: 'band' }))
    .layers.find((l) => l.id === 'built')!;
  const at = (trace: typeof second.trace, hz: number) =>
    trace.levelDb[trace.frequenciesHz.findIndex((f) => f >= hz)];
  expect(at(second.trace, 1000)).toBeCloseTo(at(direct.trace, 1000), 1);
  const first = fed.ways[1];
  const unknown = { is: 'output', of: { way: 'w1', stage: 's9' } } as const;
  expect(() => gate({ ...fed, ways: [fed.ways[0], { ...first, from: unknown }] })).toThrow(
    /no such stage/,
  );
});

test('a control sets what it moves, between its ends', () => {
  const pot = grafted(stageOf('rc-low-pass'), {
    do: 'swap',
    part: 'R1',
    new: { kind: 'potentiometer' },
  });
  const moves = [
    { stage: 's1', part: 'P1', quantity: 'turn', from: 0, to: 1, law: 'even' as const },
  ];
  const at = (place: number): Sheet => ({
    ...sheetWith(pot),
    controls: [{ id: 'c1', name: 'P1', is: 'turn', at: place, moves }],
  });
  gate(at(0.3));
  const turned = { ...pot, parts: { ...pot.parts, P1: { ...pot.parts.P1, more: { turn: 0.3 } } } };
  expect(levelAt(at(0.3), 3000)).toBeCloseTo(levelAt(sheetWith(turned), 3000), 12);
  expect(Math.abs(levelAt(at(0.9), 3000) - levelAt(at(0.1), 3000))).toBeGreaterThan(6);
});
