import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { main } from './main';

const folder = mkdtempSync(join(tmpdir(), 'reed-bench-'));
const inFolder = (name: string) => join(folder, name);

function run<T>(...argv: string[]) {
  let [out, error] = ['', ''];
  const code = main(argv, { out: (t) => (out += t), error: (t) => (error += t) });
  return { code, error, result: out === '' ? null : (JSON.parse(out) as T) };
}

const ASK = inFolder('ask.json');
writeFileSync(
  ASK,
  JSON.stringify({
    format: 'jaunty-reed/ask',
    version: 1,
    kind: 'low-pass',
    order: 4,
    edgeHz: 3400,
    topology: 'unity-low-pass',
  }),
);
const TAKE = inFolder('take.csv');
const CLOSE = ['--tolerance', 'resistor=1%,capacitor=1%'];

interface Found {
  ranking: {
    parts: { id: string; factor: number }[];
    alike: string[][];
    explained: number;
    chance: number;
  }[];
  mistakes: { kind: string; parts: string[]; explained: number }[];
  gainDb: number;
  next: unknown;
}

test('reed rig writes a take, the same for the same seed, and reed suspects names what is wrong', () => {
  const rig = ['rig', ASK, '--probe', 'out', '--seed', '3', ...CLOSE, '--out', TAKE];
  const { code, result } = run<{ gainDb: number }>(...rig, '--fault', 'C2=*1.3');
  expect(code).toBe(0);
  const written = readFileSync(TAKE, 'utf8');
  expect(written.split('\n')[0]).toBe('hz,db,degrees');
  run(...rig, '--fault', 'C2=*1.3');
  expect(readFileSync(TAKE, 'utf8')).toBe(written);

  const found = run<Found>('suspects', ASK, TAKE, '--probe', 'out', ...CLOSE).result!;
  expect(found.ranking[0]).toMatchObject({
    parts: [{ id: 'C2', factor: expect.closeTo(1.3, 1) as number }],
    alike: [],
  });
  expect(found.ranking[0].chance).toBeGreaterThan(0.8);
  expect(found.gainDb).toBeCloseTo(result!.gainDb, 1);
  expect(found.next).toBeNull();
});

test('takes at other nets, and the ohms that the source sees, are weighed beside the first', () => {
  const twins = inFolder('twins.json');
  const parts = [
    { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
    { id: 'R1', kind: 'resistor', a: 'in', b: 'x', ohms: 10_000 },
    { id: 'C1', kind: 'capacitor', a: 'x', b: '0', farads: 15e-9 },
    { id: 'A1', kind: 'op-amp', inPlus: 'x', inMinus: 'mid', out: 'mid', model: 'ideal' },
    { id: 'R2', kind: 'resistor', a: 'mid', b: 'out', ohms: 10_000 },
    { id: 'C2', kind: 'capacitor', a: 'out', b: '0', farads: 15e-9 },
  ];
  writeFileSync(
    twins,
    JSON.stringify({ format: 'jaunty-reed/circuit', version: 1, title: '', ground: '0', parts }),
  );
  const rig = (name: string, ...more: string[]) => {
    const out = inFolder(name);
    const fault = ['--fault', 'C1=*1.3', '--noise-db', '0.05', '--seed', '8'];
    expect(run('rig', twins, ...CLOSE, ...fault, ...more, '--out', out).code).toBe(0);
    return out;
  };
  const output = rig('output.csv', '--probe', 'out');
  const mid = rig('mid.csv', '--probe', 'mid');
  const ohms = rig('ohms.csv', '--probe', 'out', '--impedance');
  expect(readFileSync(ohms, 'utf8')).toMatch(/^hz,ohms,degrees/);
  const first = (...more: string[]) => {
    const { ranking } = run<Found>(
      'suspects',
      twins,
      output,
      '--probe',
      'out',
      ...CLOSE,
      ...more,
    ).result!;
    return [ranking[0].parts.map((p) => p.id), ...ranking[0].alike].flat().sort();
  };
  expect(first()).toEqual(['C1', 'C2', 'R1', 'R2']);
  expect(first('--also', `mid=${mid}`)).toEqual(['C1', 'R1']);
  expect(first('--impedance', ohms)).toEqual(['C1']);

  const refused = (...more: string[]) => run('suspects', twins, output, ...more);
  expect(refused('--also', 'mid').error).toContain('--also is a net and a take');
  expect(refused('--also', `nowhere=${mid}`).error).toContain('nowhere');
  expect(refused('--impedance', output).error).toContain('is no impedance in ohms');
});

test('levels alone do; a mistake is named', () => {
  run('rig', ASK, '--seed', '5', ...CLOSE, '--fault', 'C3=*10', '--points', '40', '--out', TAKE);
  const levels = inFolder('levels.txt');
  const rows = readFileSync(TAKE, 'utf8').trim().split('\n').slice(1);
  expect(rows).toHaveLength(40);
  writeFileSync(levels, rows.map((row) => row.split(',').slice(0, 2).join('\t')).join('\n'));
  const { mistakes } = run<Found>('suspects', ASK, levels, ...CLOSE).result!;
  expect(mistakes[0]).toMatchObject({ kind: 'decade', parts: ['C3'] });
});

test('what cannot be is refused in one line', () => {
  const refused = (...argv: string[]) => {
    const { code, error } = run(...argv);
    expect(code).toBe(2);
    return error;
  };
  expect(refused('rig', ASK, '--fault', 'C9=*2', '--out', TAKE)).toContain('no part “C9”');
  expect(refused('rig', ASK)).toContain('--out is missing');
  expect(refused('rig', ASK, '--noise-db', 'loud', '--out', TAKE)).toContain('--noise-db');
  expect(refused('rig', ASK, '--from', '2k', '--to', '1k', '--out', TAKE)).toContain('--from');
  const bad = inFolder('bad.csv');
  writeFileSync(bad, '100,0\n200,low\n300,-3\n');
  expect(refused('suspects', ASK, bad)).toContain('Line 2 of the take');
  writeFileSync(bad, '100,0\n200,-1\n');
  expect(refused('suspects', ASK, bad)).toContain('fewer than 5');
  expect(refused('suspects', ASK, inFolder('none.csv'))).toContain('There is no file');
  expect(refused('suspects', ASK, TAKE, '--tolerance', 'resistor')).toContain('--tolerance');
  expect(refused('suspects', ASK, TAKE, '--tolerance', 'wire=1%')).toContain('“wire”');
  expect(refused('suspects', ASK, TAKE, '--noise-db', '0')).toContain('--noise-db');
  expect(refused('suspects', ASK, TAKE, '--probe', 'nowhere')).toContain('nowhere');
});
