import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoMade } from '@/testing/demo';
import { main } from './main';

const folder = mkdtempSync(join(tmpdir(), 'reed-parts-'));

function run(...argv: string[]) {
  let [out, error] = ['', ''];
  const code = main(argv, { out: (t) => (out += t), error: (t) => (error += t) });
  return { code, error, result: out === '' ? null : (JSON.parse(out) as unknown) };
}

function file(name: string, content: unknown): string {
  const path = join(folder, name);
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
}

const ASK = file('ask.json', {
  format: 'jaunty-reed/ask',
  version: 1,
  kind: 'low-pass',
  order: 2,
  edgeHz: 1000,
  topology: 'unity-low-pass',
  gainDb: 0,
});
const RC = file('rc.json', {
  format: 'jaunty-reed/circuit',
  version: 1,
  ground: '0',
  parts: [
    { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
    { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 10_300 },
    { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 10.4e-9 },
  ],
});
const EDGE = '{"measure":"edge","downDb":3.0103,"side":"upper"}';

interface Fit {
  nearest: { worstDb: number };
  fitted: { worstDb: number; circuit: unknown; readings: { met: boolean | null }[] };
  parts: { id: string; fitted: number; made: { how: string; of: number[] } }[];
  stock?: { parts: number; bad: { line: number; why: string }[] };
}

describe('reed fit', () => {
  test('fits an ask, a circuit and a sheet, and writes the circuit down', () => {
    const sheet = file('sheet.json', demoMade('2026-01-01T00:00:00.000Z')[1]);
    for (const subject of [ASK, RC, sheet]) {
      const out = join(folder, 'fitted.json');
      const { code, result } = run('fit', subject, '--out', out);
      expect(code).toBe(0);
      const { nearest, fitted } = result as Fit;
      expect(fitted.worstDb).toBeLessThanOrEqual(nearest.worstDb);
      expect(JSON.parse(readFileSync(out, 'utf8'))).toEqual(fitted.circuit);
      expect(run('ac', out, '--probe', 'out', '--at', '1k').code).toBe(0);
    }
  });

  test('takes from a stock, and says which of its lines are no parts', () => {
    const stock = file(
      'stock.csv',
      'kind,value,quantity\nresistor,10k,5\nresistor,12k,5\nresistor,15k,1\nresistor,what,1\ncapacitor,10n,2\ncapacitor,22n,2\ncapacitor,15n,2\n',
    );
    const { code, result } = run('fit', ASK, '--stock', stock, '--pairs', 'both');
    expect(code).toBe(0);
    const { parts, stock: read } = result as Fit;
    expect(read).toMatchObject({ parts: 6, bad: [{ line: 5 }] });
    const values = [10e3, 12e3, 15e3, 10e-9, 22e-9, 15e-9];
    for (const { made } of parts) for (const v of made.of) expect(values).toContain(v);
  });

  test('sets resistors with trimmers, of the stock where it has some', () => {
    const trimmed = (...options: string[]) => {
      const { code, result } = run('fit', ASK, '--trim', 'R1', ...options);
      expect(code).toBe(0);
      return (result as Fit).parts.find((p) => p.id === 'R1')!;
    };
    const usual = trimmed();
    expect(usual.made.how).toBe('trimmer');
    expect(usual.fitted).toBeGreaterThan(usual.made.of[0]);
    expect(usual.fitted).toBeLessThan(usual.made.of[0] + usual.made.of[1]);
    const stock = file(
      'trimmers.csv',
      'kind,value,quantity\ntrimmer,3k,5\ntrimmer,30k,5\n'.concat(
        ...['4k7', '6k8', '10k', '15k', '22k', '33k'].map((v) => `resistor,${v},5\n`),
        ...['4n7', '10n', '22n'].map((v) => `capacitor,${v},5\n`),
      ),
    );
    expect([3000, 30_000]).toContain(trimmed('--stock', stock).made.of[1]);
  });

  test.each([
    [['--trim', 'R77'], /no part “R77” whose value is chosen; there are R1/],
    [['--pairs', 'three'], /--pairs must be none, parallel, series, both/],
    [['--resistors', 'E7'], /--resistors must be E3/],
    [['--boards', '0'], /--boards must be a whole number/],
    [['--stock', join(folder, 'none.csv')], /none\.csv/],
  ])('%s is refused in words', (options, why) => {
    const { code, error } = run('fit', ASK, ...options);
    expect(code).toBe(2);
    expect(error).toMatch(why);
  });
});

describe('reed spread', () => {
  test('prints readings with percentiles and shares, and levels', () => {
    const options = ['--tolerance', 'resistor=1%,C1=5%', '--boards', '2000', '--at', '1k,2k'];
    const { code, result } = run('spread', RC, '--probe', 'out', ...options, '--read', EDGE);
    expect(code).toBe(0);
    const { readings, levels } = result as {
      readings: Record<string, number | Record<string, number>>[];
      levels: Record<string, { p5: number; p50: number; p95: number }>;
    };
    expect(readings).toHaveLength(1);
    const [{ p1, p5, p50, p95, p99, shares }] = readings;
    expect([p1, p5, p50, p95, p99].every((x, i, all) => i === 0 || x > all[i - 1])).toBe(true);
    expect((shares as Record<string, number>).C1).toBeGreaterThan(0.9);
    expect(Object.keys(levels)).toEqual(['1000', '2000']);
    expect(levels[1000].p5).toBeLessThan(levels[1000].p95);
  });

  test.each([
    [['--tolerance', 'resistor=120%', '--at', '1k'], /less than 100 %/],
    [['--tolerance', 'resistor=1%'], /--read or --at/],
    [['--tolerance', 'relay=1%', '--at', '1k'], /no part and no kind “relay”/],
    [['--tolerance', 'resistor=1%', '--read', '{"measure":"edge"}'], /--read: downDb/],
    [['--tolerance', 'resistor=1%', '--at', '1k', '--boards', '1e9'], /--boards/],
  ])('%s is refused in words', (options, why) => {
    const { code, error } = run('spread', RC, ...options);
    expect(code).toBe(2);
    expect(error).toMatch(why);
  });
});

describe('reed solve-for', () => {
  const solve = (...more: string[]) =>
    run('solve-for', RC, '--part', 'R1', '--read', EDGE, ...more);

  test('prints the value that does it, or why there is none', () => {
    const { solutions, why } = solve('--want', '1k2').result as {
      solutions: { value: number; reads: number }[];
      why: string | null;
    };
    expect(why).toBeNull();
    expect(solutions[0].reads).toBeCloseTo(1200, 4);
    expect(solutions[0].value / (1 / (2 * Math.PI * 1200 * 10.4e-9))).toBeCloseTo(1, 4);
    const none = solve('--want', '1k2', '--from', '1', '--to', '10').result as {
      solutions: unknown[];
      why: string;
    };
    expect(none.solutions).toEqual([]);
    expect(none.why).toMatch(/never reaches/);
  });

  test('of what is no measure or no part says so', () => {
    expect(run('solve-for', RC, '--part', 'R1', '--read', 'x', '--want', '1').code).toBe(2);
    expect(run('solve-for', RC, '--part', 'R7', '--read', EDGE, '--want', '1k').error).toMatch(
      /no part “R7”/,
    );
  });
});
