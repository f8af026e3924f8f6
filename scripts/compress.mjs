// Compresses the built scripts and styles once, as far as it goes, so that serving them costs nothing.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const folder = new URL('../.next/static', import.meta.url).pathname;
for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
  if (!entry.isFile() || !/\.(js|css|svg)$/.test(entry.name)) continue;
  const path = join(entry.parentPath, entry.name);
  const content = readFileSync(path);
  const options = { params: { [constants.BROTLI_PARAM_SIZE_HINT]: content.length } };
  writeFileSync(`${path}.br`, brotliCompressSync(content, options));
  writeFileSync(`${path}.gz`, gzipSync(content, { level: 9 }));
}
