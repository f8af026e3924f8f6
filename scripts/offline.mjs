// Makes .next/sw.js of a finished build: the worker that keeps the program in the browser
// (src/workers/offline), with the list of everything that it is to keep.
import { build } from 'esbuild';
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const built = join(root, '.next');
const version = readFileSync(join(built, 'BUILD_ID'), 'utf8').trim();

/** Names that end otherwise are older forms of fonts, compressed copies, and sources. */
const KEPT = /\.(js|mjs|css|woff2|svg|png|wasm)$/;
/** Names of built files change with their content: no revision is needed. */
const files = readdirSync(join(built, 'static'), { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile() && KEPT.test(entry.name))
  .map((entry) => relative(built, join(entry.parentPath, entry.name)).split('\\').join('/'))
  .map((path) => ({ url: `/_next/${path}`, revision: null }));

/** Addresses of pages; those in src/app/screens stand behind the addresses of sheets. */
const routes = Object.values(
  JSON.parse(readFileSync(join(built, 'app-path-routes-manifest.json'), 'utf8')),
);
const addressed = (route) =>
  route === '/screens/sheet' ? '/sheet/-' : route.replace(/^\/screens\//, '/sheet/-/');
const loose = routes.filter((route) => /\.[a-z]+$/.test(route));
const pages = routes
  .filter((route) => !/\.[a-z]+$|^\/api\/|^\/_|\[/.test(route))
  .flatMap((route) =>
    ['', '?_rsc=tree', '?_rsc=head', '?_rsc=data'].map((kind) => addressed(route) + kind),
  );

await build({
  entryPoints: [join(root, 'src/workers/offline/offline.worker.ts')],
  outfile: join(built, 'sw.js'),
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  define: {
    'process.env.NODE_ENV': '"production"',
    BUILD: JSON.stringify(version),
    FILES: JSON.stringify([
      ...files,
      ...[...loose, ...pages].map((url) => ({ url, revision: version })),
    ]),
  },
  logLevel: 'warning',
});
console.log(`Kept without a network: ${files.length} files, ${pages.length / 4} pages.`);
