import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoSheets } from '@/core/demo/sheets';
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
  const path = file('sheet.json', JSON.stringify(demoSheets('2026-11-23T08:00:00.000Z')[1]));
  const { code, out } = run('sheet', path);
  expect(code).toBe(0);
  const { readings } = JSON.parse(out) as {
    readings: { name: string; values: { ideal: number; built: number }; met: boolean | null }[];
  };
  expect(readings[0]).toMatchObject({
    name: 'Upper edge, 3 dB down',
    met: expect.any(Boolean) as boolean,
  });
  expect(readings[0].values.ideal).toBeCloseTo(3400 * (10 ** 0.3 - 1) ** (1 / 8), 3);
});
