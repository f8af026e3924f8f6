// Serves the production build: on this machine only, unless HOST says otherwise. What is no question
// for a page is refused here, before it reaches the framework.
import { existsSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import next from 'next';
import { NO_PAGE_POLICY, SECURITY_HEADERS, WORKER_POLICY } from './headers.mjs';

const host = process.env.HOST || '127.0.0.1';
const port = Number(process.env.PORT || 3000);
/** Longest address that means anything here, and longest id of a sheet. */
const LONGEST_ADDRESS = 2048;
const LONGEST_ID = 64;

/** The only address that takes anything, and the most that it takes, bytes. */
const ORDERS = '/api/shop';
const LONGEST_ORDER = 65_536;

/**
 * Why a request is refused, or null.
 *
 * @param length of its body, as it says itself; NaN where it does not
 */
export function refusal(method, address, length) {
  const path = address.split('?')[0];
  if (method === 'POST' && path === ORDERS) {
    if (!(length <= LONGEST_ORDER)) return 413;
  } else if (method !== 'GET' && method !== 'HEAD') return 405;
  if (address.length > LONGEST_ADDRESS) return 414;
  let plain;
  try {
    plain = decodeURIComponent(path);
  } catch {
    return 400;
  }
  if (!path.startsWith('/') || /[\u0000-\u001f\\]/.test(plain)) return 400;
  // What serves the addresses of sheets has none of its own.
  if (/^\/screens(\/|$)/.test(plain)) return 404;
  const id = /^\/sheet\/([^/]*)(?:\/[a-z]+)?\/?$/.exec(path)?.[1];
  return id !== undefined && decodeURIComponent(id).length > LONGEST_ID ? 404 : null;
}

const WORDS = {
  400: 'This address cannot be read.',
  404: 'There is nothing at this address.',
  405: 'Pages are only read here: GET or HEAD.',
  413: 'An order says how long it is, and is at most 64 KiB.',
  414: 'This address is too long.',
};

function refuse(request, response, status) {
  response.writeHead(status, {
    'content-type': 'text/plain; charset=utf-8',
    'content-security-policy': NO_PAGE_POLICY,
    'cache-control': 'no-store',
    ...(status === 405 ? { allow: 'GET, HEAD' } : {}),
    connection: 'close',
  });
  response.end(request.method === 'HEAD' ? undefined : `${WORDS[status]}\n`);
}

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const TYPES = { js: 'text/javascript', css: 'text/css', svg: 'image/svg+xml' };

/** Files read so far, by path; a name never gets another content. */
const contents = new Map();
function contentOf(file) {
  let content = contents.get(file);
  if (content === undefined && existsSync(file)) contents.set(file, (content = readFileSync(file)));
  return content;
}

/** A built file in the form that scripts/compress.mjs left of it; its name changes with its content. */
function serveCompressed(request, response) {
  const path = /^\/_next\/static\/((?:[\w-][\w.-]*\/)*[\w-][\w.~-]*\.(js|css|svg))$/.exec(
    (request.url ?? '').split('?')[0],
  );
  if (!path) return false;
  const accepted = String(request.headers['accept-encoding'] ?? '');
  for (const [encoding, ending] of [
    ['br', 'br'],
    ['gzip', 'gz'],
  ]) {
    const file = join(root, '.next/static', `${path[1]}.${ending}`);
    if (!accepted.includes(encoding)) continue;
    const content = contentOf(file);
    if (content === undefined) continue;
    response.writeHead(200, {
      'content-type': `${TYPES[path[2]]}; charset=utf-8`,
      'content-encoding': encoding,
      'content-length': content.length,
      'cache-control': 'public, max-age=31536000, immutable',
      vary: 'accept-encoding',
    });
    response.end(request.method === 'HEAD' ? undefined : content);
    return true;
  }
  return false;
}

/** The worker that keeps the program in the browser; whether there is a newer one is asked each time. */
function serveWorker(request, response) {
  if ((request.url ?? '').split('?')[0] !== '/sw.js') return false;
  const content = contentOf(join(root, '.next/sw.js'));
  if (content === undefined) return false;
  response.writeHead(200, {
    'content-type': 'text/javascript; charset=utf-8',
    'content-length': content.length,
    'content-security-policy': WORKER_POLICY,
    'cache-control': 'no-cache',
  });
  response.end(request.method === 'HEAD' ? undefined : content);
  return true;
}

const app = next({
  dev: false,
  dir: root,
  hostname: host,
  port,
});
await app.prepare();
const handle = app.getRequestHandler();
const server = createServer((request, response) => {
  for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.setHeader(name, value);
  const length = Number(request.headers['content-length'] ?? NaN);
  const status = refusal(request.method ?? '', request.url ?? '', length);
  if (status) refuse(request, response, status);
  else if (!serveCompressed(request, response) && !serveWorker(request, response))
    handle(request, response).catch(() => {
      if (!response.headersSent) refuse(request, response, 404);
      else response.destroy();
    });
});
server.on('error', (error) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is in use. Stop what uses it, or choose another: PORT=3001 ./start`
      : `The server could not start: ${error.message}`,
  );
  process.exit(1);
});
server.listen(port, host, () => {
  const shown = host === '127.0.0.1' || host === '::1' ? 'localhost' : host;
  console.log(`Jaunty Reed is at http://${shown}:${port} (stop it with Ctrl+C)`);
});
