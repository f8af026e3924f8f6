import { build } from 'esbuild';
import { join } from 'node:path';

/** What reads, checks and solves sheets: large, and nothing that a first screen shows. */
const HEAVY =
  /^(src\/core\/(topologies|circuit|differences\/differences|sheet\/(schema|read|gate))\b|src\/store\/(sheets|book|records|session-storage)\.|node_modules\/(zod|ml-matrix)\/)/;

/** Every module that stands before the page does: what is fetched when it is wanted is none of them. */
async function standsBefore(page: string): Promise<string[]> {
  const entry = join('src', 'app', page);
  const { metafile } = await build({
    entryPoints: [entry],
    outdir: 'unused',
    bundle: true,
    splitting: true,
    write: false,
    metafile: true,
    format: 'esm',
    jsx: 'automatic',
    external: ['next', 'next/*', '*.css'],
  });
  const found = new Set<string>();
  const walk = (path: string) => {
    if (found.has(path)) return;
    found.add(path);
    for (const { kind, path: next, external } of metafile.inputs[path].imports)
      if (kind === 'import-statement' && !external) walk(next);
  };
  walk(entry);
  return [...found];
}

test.each(['layout.tsx', 'page.tsx', 'book/page.tsx', 'global-error.tsx'])(
  '%s stands before anything is there that reads sheets',
  async (page) => {
    const modules = await standsBefore(page);
    expect(modules).toContain(join('src', 'app', page));
    expect(modules.filter((path) => HEAVY.test(path))).toEqual([]);
  },
);

test('a sheet, which needs all of it, is told apart', async () => {
  const modules = await standsBefore('screens/sheet/page.tsx');
  expect(modules.some((path) => HEAVY.test(path))).toBe(true);
});
