import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoMade } from '@/testing/demo';
import { DRIVER } from '@/core/library/testing';
import { main } from './main';

const folder = mkdtempSync(join(tmpdir(), 'reed-'));
const FIXTURE = join(__dirname, '../core/fixtures/ac-rc-two-section.json');

function run(...argv: string[]): { code: number; out: string; error: string } {
  let [out, error] = ['', ''];
  const code = main(argv, { out: (t) => (out += t), error: (t) => (error += t) });
  return { code, out, error };
}

function file(name: string, content: string): string {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
}

describe('reed ac', () => {
  const reference = JSON.parse(readFileSync(FIXTURE, 'utf8')) as {
    circuit: unknown;
    frequenciesHz: number[];
    probes: { out: { re: number[] } };
  };
  const circuit = file('circuit.json', JSON.stringify(reference.circuit));

  test('prints the named nets at the named frequencies', () => {
    const { code, out } = run(
      'ac',
      circuit,
      '--probe',
      'out,a',
      '--at',
      reference.frequenciesHz.join(','),
    );
    expect(code).toBe(0);
    const result = JSON.parse(out) as {
      frequenciesHz: number[];
      probes: Record<string, { re: number[]; im: number[] }>;
    };
    expect(result.frequenciesHz).toEqual(reference.frequenciesHz);
    expect(Object.keys(result.probes)).toEqual(['out', 'a']);
    result.probes.out.re.forEach((re, k) => expect(re).toBeCloseTo(reference.probes.out.re[k], 10));
  });

  test('sweeps a log axis, both ends included', () => {
    const { out } = run(
      'ac',
      circuit,
      '--probe',
      'out',
      '--from',
      '20',
      '--to',
      '20k',
      '--points',
      '4',
    );
    const { frequenciesHz } = JSON.parse(out) as { frequenciesHz: number[] };
    expect(frequenciesHz).toHaveLength(4);
    expect(frequenciesHz[0]).toBe(20);
    expect(frequenciesHz[1]).toBeCloseTo(200, 9);
    expect(frequenciesHz[3]).toBe(20000);
  });

  const bad: [string, string[], RegExp][] = [
    ['no such file', ['ac', join(folder, 'none.json'), '--probe', 'out', '--at', '1'], /no file/],
    ['not JSON', ['ac', file('text.json', 'hello'), '--probe', 'out', '--at', '1'], /not JSON/],
    ['unknown net', ['ac', circuit, '--probe', 'nowhere', '--at', '1'], /no net “nowhere”/],
    ['no frequencies', ['ac', circuit, '--probe', 'out'], /--from is missing/],
    [
      'both kinds of frequencies',
      ['ac', circuit, '--probe', 'out', '--at', '1', '--from', '2'],
      /not both/,
    ],
    [
      'bad number',
      ['ac', circuit, '--probe', 'out', '--at', '1,x'],
      /--at: “x” is not a frequency/,
    ],
    ['unknown option', ['ac', circuit, '--prob', 'out'], /Unknown option/],
    ['unknown command', ['ca'], /no command “ca”/],
  ];
  test.each(bad)('%s: exit 2 and one line', (_, argv, words) => {
    const { code, out, error } = run(...argv);
    expect({ code, out }).toEqual({ code: 2, out: '' });
    expect(error).toMatch(words);
    expect(error).not.toContain('\n');
  });
});

test('reed sheet prints a sheet’s readings', () => {
  const path = file('sheet.json', JSON.stringify(demoMade('2026-11-23T08:00:00.000Z')[1]));
  const { code, out } = run('sheet', path);
  expect(code).toBe(0);
  const { readings } = JSON.parse(out) as {
    readings: { name: string; values: { ideal: number; built: number }; met: boolean | null }[];
  };
  expect(readings[0]).toMatchObject({
    name: 'Upper edge, 3.01\u00a0dB down',
    met: expect.any(Boolean) as boolean,
  });
  expect(readings[0].values.ideal).toBeCloseTo(3400, 3);
});

describe('from an ask', () => {
  const askFile = (name: string, fields: object) =>
    file(`${name}.json`, JSON.stringify({ format: 'jaunty-reed/ask', version: 1, ...fields }));

  test('reed design writes a circuit that reed ac solves to the asked edge', () => {
    const ask = askFile('speech', {
      kind: 'low-pass',
      shape: 'chebyshev',
      rippleDb: 1,
      edge: 'ripple',
      order: 5,
      edgeHz: 3400,
    });
    const circuit = join(folder, 'designed.json');
    const { code, out } = run('design', ask, '--out', circuit);
    expect(code).toBe(0);
    const printed = JSON.parse(out) as {
      values: Record<string, number>;
      stages: { topology: string; f0Hz: number; q: number | null; gain: number }[];
      notes: string[];
    };
    expect(printed.stages.map((s) => s.topology)).toEqual([
      'buffered-rc-low-pass',
      'unity-low-pass',
      'unity-low-pass',
    ]);
    expect(printed.notes.join(' ')).toMatch(/leaves the ripple/);
    const solved = JSON.parse(run('ac', circuit, '--probe', 'out', '--at', '1,3400').out) as {
      probes: { out: { re: number[]; im: number[] } };
    };
    const { re, im } = solved.probes.out;
    const db = re.map((x, k) => 20 * Math.log10(Math.hypot(x, im[k])));
    expect(db[1] - db[0]).toBeCloseTo(-1, 4);
    const parts = (JSON.parse(readFileSync(circuit, 'utf8')) as { parts: { id: string }[] }).parts;
    expect(parts.map((p) => p.id)).toEqual(
      expect.arrayContaining(['source', ...Object.keys(printed.values)]),
    );
  });

  test('reed weigh prints the table, cut to the asked length', () => {
    const ask = askFile('notch', { kind: 'notch', centreHz: 50, q: 4 });
    const { code, out } = run('weigh', ask, '--most', '3');
    expect(code).toBe(0);
    const { rows, refusals } = JSON.parse(out) as {
      rows: Record<string, unknown>[];
      refusals: unknown[];
    };
    expect(rows.length + refusals.length).toBe(3);
    expect(Object.keys(rows[0])).toEqual(
      expect.arrayContaining([
        'topology',
        'counts',
        'worstQ',
        'gainBandwidthHz',
        'rippleDb',
        'attenuationDb',
        'yield',
        'cost',
      ]),
    );
  });

  test('reed topologies lists ids, kinds and orders', () => {
    const { topologies } = JSON.parse(run('topologies').out) as {
      topologies: { id: string; kind: string; order: number }[];
    };
    expect(topologies.length).toBeGreaterThan(100);
    expect(topologies).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ id: 'leapfrog-low-pass-7', kind: 'low-pass', order: 7 }),
      ]),
    );
  });

  test.each([
    [{ kind: 'low-pass', order: 3 }, /edgeHz is missing/],
    [{ kind: 'low-pass', order: 3, edgeHz: 1000, topology: 'unity-high-pass' }, /Use one of/],
    [{ kind: 'low-pass', shape: 'linkwitz-riley', order: 3, edgeHz: 1000 }, /order 2, 4, 6 or 8/],
    [{ kind: 'notch', centreHz: 50, q: 4, topology: 'twin-t', gainDb: 6 }, /gain/],
  ])('%j: exit 2 and one line', (fields, words) => {
    const { code, out, error } = run('design', askFile('bad', fields));
    expect({ code, out }).toEqual({ code: 2, out: '' });
    expect(error).toMatch(words);
    expect(error).not.toContain('\n');
  });
});

describe('a sheet’s file with what goes along', () => {
  const demo = demoMade('2026-11-23T08:00:00.000Z').find((s) => s.id === 'demo-speech')!;
  const [way] = demo.ways;
  const spoken = {
    ...demo,
    source: { ...demo.source, ohms: 8 },
    ways: [
      {
        ...way,
        stages: [],
        to: { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted: false },
      },
    ],
    readings: [{ id: 'r', measure: { measure: 'level', atHz: 52 } }],
    along: { drivers: [DRIVER] },
  };

  test('reed sheet solves the path into its loudspeaker', () => {
    const { code, out } = run('sheet', file('spoken.json', JSON.stringify(spoken)));
    expect(code).toBe(0);
    const { readings, problems } = JSON.parse(out) as {
      readings: { values: Record<string, number> }[];
      problems: string[];
    };
    expect(problems).toEqual([]);
    // At resonance Re (1 + Qms/Qes), here 5.6 ohms times eleven, and the coil’s 0.26 ohms beside it.
    const [re, im] = [5.6 * 11, 2 * Math.PI * 52 * 0.8e-3];
    const ratio = Math.hypot(re, im) / Math.hypot(re + 8, im);
    expect(readings[0].values.built).toBeCloseTo(20 * Math.log10(ratio), 6);
  });

  test('without it, the problem is printed', () => {
    const bare: Partial<typeof spoken> = { ...spoken };
    delete bare.along;
    const { out } = run('sheet', file('bare.json', JSON.stringify(bare)));
    expect(out).toMatch(/loudspeaker “Woofer” is not among the drivers/);
  });

  test('reed graft hands on what goes along', () => {
    const changed = { ...spoken, ways: [{ ...spoken.ways[0], stages: way.stages }] };
    const path = file('whole.json', JSON.stringify(changed));
    const out = join(folder, 'grafted.json');
    const { code } = run(
      ...['graft', path, '--across', 'R1', '--kind', 'capacitor', '--value', '1n', '--out', out],
    );
    expect(code).toBe(0);
    expect(JSON.parse(readFileSync(out, 'utf8'))).toMatchObject({ along: { drivers: [DRIVER] } });
  });

  test('an entry that cannot be read is named', () => {
    const bad = { ...spoken, along: { drivers: [{ ...DRIVER, model: { ohms: -1 } }] } };
    const { code, error } = run('sheet', file('bad.json', JSON.stringify(bad)));
    expect(code).not.toBe(0);
    expect(error).toMatch(/“along\.drivers\[0\]”: The loudspeaker cannot be read/);
  });
});

describe('reed graft and reed draw', () => {
  const { circuit } = JSON.parse(readFileSync(FIXTURE, 'utf8')) as {
    circuit: { ground: string; parts: { id: string; kind: string; a?: string; b?: string }[] };
  };
  const plain = file('plain.json', JSON.stringify(circuit));
  const out = join(folder, 'out.json');
  const partsOf = () =>
    (JSON.parse(readFileSync(out, 'utf8')) as typeof circuit).parts as Record<string, unknown>[];
  const first = circuit.parts.find((p) => p.kind === 'resistor')!;

  test('a part across another has its nets', () => {
    const { code } = run(
      ...['graft', plain, '--across', first.id, '--kind', 'capacitor', '--value', '1n'],
      ...['--out', out],
    );
    expect(code).toBe(0);
    expect(partsOf().at(-1)).toMatchObject({
      kind: 'capacitor',
      a: first.a,
      b: first.b,
      farads: 1e-9,
    });
  });

  test('a part in line takes the other’s end over', () => {
    run('graft', plain, '--in-line', first.id, '--kind', 'coil', '--value', '1m', '--out', out);
    const parts = partsOf();
    const moved = parts.find((p) => p.id === first.id)!;
    expect(moved.a).toBe(first.a);
    expect(parts.at(-1)).toMatchObject({ kind: 'inductor', a: moved.b, b: first.b });
  });

  test('a shorted part is gone and its nets are one', () => {
    run('graft', plain, '--short', first.id, '--out', out);
    const parts = partsOf();
    expect(parts).toHaveLength(circuit.parts.length - 1);
    expect(JSON.stringify(parts)).not.toContain(`:"${first.b}"`);
  });

  test('a sheet keeps everything but the stage that is changed', () => {
    const sheet = demoMade('2026-11-25T08:00:00.000Z').find((s) => s.id === 'demo-speech')!;
    const path = file('sheet.json', JSON.stringify(sheet));
    const { code, out: told } = run(
      ...['graft', path, '--to-ground', 'R3', '--kind', 'resistor', '--value', '1M', '--out', out],
    );
    expect(code).toBe(0);
    expect(JSON.parse(told)).toMatchObject({
      stage: 's2',
      words: 'a resistor from R1 b to ground',
    });
    const changed = JSON.parse(readFileSync(out, 'utf8')) as typeof sheet;
    expect(changed.ways[0].stages[0]).toEqual(sheet.ways[0].stages[0]);
    expect(changed.ways[0].stages[1].parts.R3).toEqual({ value: 1e6, chosen: 'hand' });
  });

  test.each([
    [['--across', 'R99', '--kind', 'resistor'], /no part “R99”/],
    [['--across', first.id], /--kind is missing/],
    [['--across', first.id, '--kind', 'teapot'], /no “teapot”/],
    [['--across', first.id, '--kind', 'diode', '--value', '1'], /no value of its own/],
    [['--across', first.id, '--short', first.id], /one of --across/],
  ])('%p is refused in words', (args, words) => {
    const { code, error } = run('graft', plain, ...args, '--out', out);
    expect(code).not.toBe(0);
    expect(error).toMatch(words);
  });

  test('what is drawn reads back as what was given', () => {
    const svg = join(folder, 'out.svg');
    const { code, out: told } = run('draw', plain, '--out', svg);
    expect(code).toBe(0);
    const { nets } = JSON.parse(told) as { nets: Record<string, Record<string, string>> };
    for (const { id, a, b } of circuit.parts) if (a && b) expect(nets[id]).toEqual({ a, b });
    expect(readFileSync(svg, 'utf8')).toMatch(/^<svg [^]*<\/svg>\n$/);
  });
});

describe('what is asked wrongly is answered in one line', () => {
  const folder = mkdtempSync(join(tmpdir(), 'reed-'));
  const file = (name: string, text: string): string => {
    const path = join(folder, name);
    writeFileSync(path, text);
    return path;
  };
  const silent = JSON.stringify({
    format: 'jaunty-reed/circuit',
    version: 1,
    ground: '0',
    parts: [
      { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0' },
      { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 1000 },
      { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 1e-8 },
    ],
  });
  const circuit = file('silent.json', silent);
  const one = (...argv: string[]): string => {
    const { code, out, error } = run(...argv);
    expect({ code, out }).toEqual({ code: 2, out: '' });
    expect(error.trim().split('\n')).toHaveLength(1);
    expect(error.length).toBeLessThan(900);
    return error;
  };

  test('numbers below zero are values, not options', () => {
    expect(one('ac', circuit, '--probe', 'out', '--at', '-1')).toMatch(/-1/);
    expect(
      one('ac', circuit, '--probe', 'out', '--from', '1', '--to', '9', '--points', '-3'),
    ).toMatch(/--points must be/);
    expect(one('transient', circuit, '--probe', 'out', '--until', '-1')).toMatch(
      /-1 is not a time/,
    );
  });

  test('long names are cut', () => {
    expect(one('ac', circuit, '--probe', 'x'.repeat(5000), '--at', '1')).toMatch(/x…”/);
    expect(one('x'.repeat(5000))).toMatch(/x…”/);
  });

  test('nothing at the probe is said, not printed as null', () => {
    expect(one('sensitivity', circuit, '--probe', 'out', '--at', '1k')).toMatch(
      /Nothing arrives at “out”/,
    );
    expect(run('noise', circuit, '--probe', 'out', '--from', '10', '--to', '1k').out).not.toMatch(
      /null/,
    );
  });

  test('a byte-order mark is no part of a file', () => {
    expect(run('check', file('mark.json', `\ufeff${silent}`)).code).toBe(2); // no reference
    expect(
      run('ac', file('mark.json', `\ufeff${silent}`), '--probe', 'out', '--at', '1').code,
    ).toBe(0);
  });

  test('couplings that cannot be are refused', () => {
    const coils = (couplings: object[]) =>
      file(
        'coils.json',
        JSON.stringify({
          ...JSON.parse(silent),
          parts: [
            ...(JSON.parse(silent) as { parts: object[] }).parts,
            ...['L1', 'L2', 'L3'].map((id) => ({
              id,
              kind: 'inductor',
              a: 'out',
              b: '0',
              henries: 1,
              dcrOhms: 1,
            })),
            ...couplings.map((c, i) => ({ id: `K${i}`, kind: 'coupling', ...c })),
          ],
        }),
      );
    const said = (...couplings: object[]) =>
      one('ac', coils(couplings), '--probe', 'out', '--at', '1');
    expect(said({ inductors: ['L1', 'L1'], k: 0.5 })).toMatch(/“K0” couples coil “L1” with itself/);
    expect(said({ inductors: ['L1', 'L2'], k: 0.5 }, { inductors: ['L2', 'L1'], k: 0.2 })).toMatch(
      /“K1” couples coils “L2” and “L1” a second time/,
    );
    expect(
      said(
        { inductors: ['L1', 'L2'], k: 0.9 },
        { inductors: ['L2', 'L3'], k: 0.9 },
        { inductors: ['L1', 'L3'], k: -0.9 },
      ),
    ).toMatch(/couplings of coil “L3” cannot be together/);
  });

  test('asks that a circuit cannot hold are refused, and what is written can be read', () => {
    const ask = (more: object) =>
      file(
        'ask.json',
        JSON.stringify({ format: 'jaunty-reed/ask', version: 1, edgeHz: 1000, ...more }),
      );
    expect(
      one(
        'design',
        ask({
          kind: 'high-pass',
          shape: 'butterworth',
          order: 3,
          topology: 'lc-ladder-traps-high-pass-3',
        }),
      ),
    ).toMatch(/L2 is left without a value/);
    expect(
      one(
        'design',
        ask({
          kind: 'low-pass',
          order: 3,
          topology: 'lc-ladder-low-pass-3',
          impedanceOhms: 1e-308,
        }),
      ),
    ).toMatch(/RS would have to be|impedanceOhms/);
  });

  test('a run of many points is written in pieces that are JSON together', () => {
    const { code, out } = run(
      'transient',
      circuit,
      '--probe',
      'out,in',
      '--until',
      '1m',
      '--step',
      '20n',
    );
    expect(code).toBe(0);
    const result = JSON.parse(out) as { timesSeconds: number[]; probes: Record<string, number[]> };
    expect(result.timesSeconds).toHaveLength(50_001);
    expect(Object.keys(result.probes)).toEqual(['out', 'in']);
    expect(result.probes.in).toHaveLength(50_001);
  });
});
