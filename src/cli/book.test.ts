import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ArchiveWriter } from '@/core/archive/writer';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { fileOf } from '@/core/sheet/file';
import { withValue } from '@/core/sheet/stage';
import { demoDrivers } from '@/core/demo/drivers';
import { TAKE } from '@/core/library/testing';
import { demoMade } from '@/testing/demo';
import { AT, newSheet } from '@/testing/open-sheet';
import { main } from './main';

const folder = mkdtempSync(join(tmpdir(), 'reed-book-'));

async function run(...argv: string[]): Promise<{ code: number; out: string; error: string }> {
  let [out, error] = ['', ''];
  let coming: Promise<number> | undefined;
  const code = main(argv, {
    out: (t) => (out += t),
    error: (t) => (error += t),
    later: (c) => {
      coming = c;
    },
  });
  return { code: coming ? await coming : code, out, error };
}

function file(name: string, content: unknown): string {
  const path = join(folder, name);
  writeFileSync(path, content instanceof Uint8Array ? content : JSON.stringify(content));
  return path;
}

describe('reed diff', () => {
  const sheet = newSheet();
  const [way] = sheet.ways;
  const changed = {
    ...sheet,
    ways: [{ ...way, stages: [withValue(way.stages[0], 'C2', 33e-9), way.stages[1]] }],
  };

  test('prints changes in words, and the readings of both as the sheets show them', async () => {
    const { code, out } = await run('diff', file('a.json', sheet), file('b.json', changed));
    expect(code).toBe(0);
    const { changes, readings } = JSON.parse(out) as {
      changes: unknown[];
      readings: { name: string; before: number; after: number }[];
    };
    expect(changes).toEqual([{ what: 'C2', before: '4n7', after: '33n', kind: 'value' }]);
    const shown = new SheetEvaluator()
      .evaluate(changed)
      .readings.map(({ results: { built } }) =>
        built && 'measured' in built ? built.measured.value : null,
      );
    expect(readings.map((r) => r.after)).toEqual(shown);
    expect(readings[0].before).not.toBe(readings[0].after);
  });

  test('of a sheet and itself nothing changed; what is no sheet is named', async () => {
    const a = file('a.json', sheet);
    const { out } = await run('diff', a, a);
    expect(JSON.parse(out)).toMatchObject({ changes: [] });
    const bad = await run('diff', a, file('no.json', { format: 'x' }));
    expect(bad).toMatchObject({
      code: 2,
      error: expect.stringMatching(/This is not a sheet/) as string,
    });
    expect((await run('diff', a)).error).toMatch(/2 files were expected.*Usage/);
  });
});

describe('reed archive check', () => {
  const chunks: Uint8Array[] = [];
  const writer = new ArchiveWriter(AT, (chunk) => chunks.push(chunk));
  writer.add('take', TAKE, TAKE.name);
  writer.end();
  const good = Uint8Array.from(Buffer.concat(chunks));

  test('prints the index, counts and no faults; of a bad one the faults, and fails', async () => {
    const { code, out } = await run('archive', 'check', file('good.zip', good));
    expect(code).toBe(0);
    expect(JSON.parse(out)).toMatchObject({
      counts: { take: 1 },
      faults: [],
      index: { version: 1 },
    });
    const cut = await run('archive', 'check', file('cut.zip', good.subarray(0, 300)));
    expect(cut.code).toBe(2);
    expect(JSON.parse(cut.out)).toMatchObject({
      index: null,
      faults: [expect.stringMatching(/cut off or damaged/) as string],
    });
    expect((await run('archive', 'mend', 'x.zip')).error).toMatch(/there is no “mend”/);
    expect((await run('archive', 'check', join(folder, 'none.zip'))).code).toBe(2);
  });
});

describe('reed report', () => {
  test('writes Markdown and the pictures that it names, of a sheet of any kind', async () => {
    const library = { takes: [], drivers: demoDrivers(), drawer: [] };
    const kinds = ['demo-speech', 'demo-shelf-speaker', 'demo-bank', 'demo-voice'];
    for (const sheet of demoMade(AT).filter((s) => kinds.includes(s.id))) {
      const out = join(folder, sheet.id);
      const {
        code,
        error,
        out: told,
      } = await run('report', file(`${sheet.id}.json`, fileOf(sheet, library)), '--out', out);
      expect([code, error]).toEqual([0, '']);
      const { files } = JSON.parse(told) as { files: string[] };
      expect(readdirSync(out).sort()).toEqual(files.map((f) => f.slice(out.length + 1)).sort());
      const text = readFileSync(join(out, 'report.md'), 'utf8');
      expect(text.startsWith(`# ${sheet.title}\n`)).toBe(true);
      const named = [...text.matchAll(/\]\(([\w-]+\.svg)\)/g)].map((m) => m[1]);
      expect(named.length).toBeGreaterThan(1);
      for (const name of named)
        expect(readFileSync(join(out, name), 'utf8')).toMatch(/^<svg [\s\S]*<\/svg>\n$/);
      for (const bad of ['NaN', 'undefined', 'Infinity', '[object'])
        expect(text + named.map((n) => readFileSync(join(out, n), 'utf8')).join()).not.toContain(
          bad,
        );
    }
  });

  test('tells what was asked, every part, the readings and where to measure', async () => {
    const out = join(folder, 'whole');
    await run('report', file('speech.json', newSheet()), '--out', out);
    const text = readFileSync(join(out, 'report.md'), 'utf8');
    for (const section of [
      'What was asked for',
      'Schematic',
      'Curves',
      'Values, and why',
      'Parts',
      'Test plan',
    ])
      expect(text).toContain(`\n## ${section}\n`);
    for (const part of ['R1', 'R2', 'R3', 'R4', 'C1', 'C2', 'C3', 'C4'])
      expect(text).toMatch(new RegExp(`^\\| ${part} \\|.*\\| fitted \\|$`, 'm'));
    expect(text).toMatch(/edge: 3\.4\u00a0kHz/);
    expect(text).toMatch(/\| Upper edge, .* \| met \|/);
    expect((await run('report', 'x.json')).error).toMatch(/--out is missing/);
  });
});
