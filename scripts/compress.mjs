// Compresses the built scripts and styles once, as far as it goes, so that serving them costs nothing.
// Scripts are first marked for the browser to compile whole while they arrive, away from the page's
// thread: what a chunk holds is used nearly all of it as soon as it is there.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const HINT = '//# allFunctionsCalledOnLoad\n';

function withHint(name, content) {
  if (!name.endsWith('.js') || content.toString('utf8', 0, HINT.length) === HINT) return content;
  return Buffer.concat([Buffer.from(HINT), content]);
}

const folder = new URL('../.next/static', import.meta.url).pathname;
for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
  if (!entry.isFile() || !/\.(js|css|svg)$/.test(entry.name)) continue;
  const path = join(entry.parentPath, entry.name);
  const content = withHint(entry.name, readFileSync(path));
  writeFileSync(path, content);
  const options = { params: { [constants.BROTLI_PARAM_SIZE_HINT]: content.length } };
  writeFileSync(`${path}.br`, brotliCompressSync(content, options));
  writeFileSync(`${path}.gz`, gzipSync(content, { level: 9 }));
}
