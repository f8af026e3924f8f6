// Runs the benchmarks as they would run in the product: bundled, since a runner that translates each
// file as it is loaded costs the inner loops a tenth to a third of their speed.
import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';

// Beside the packages that it imports.
const outfile = join('node_modules', '.cache', 'bench.mjs');
mkdirSync(join('node_modules', '.cache'), { recursive: true });
await build({
  entryPoints: ['bench/run.ts'],
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  tsconfig: 'tsconfig.json',
  define: { 'import.meta.dirname': JSON.stringify(join(process.cwd(), 'bench')) },
  outfile,
  logLevel: 'warning',
});
const { status } = spawnSync('node', [outfile, ...process.argv.slice(2)], {
  stdio: 'inherit',
});
process.exitCode = status ?? 1;
