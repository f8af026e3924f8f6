import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';

declare global {
  var reedServer: ChildProcess | undefined;
}

/** Serve the production build on a free port; tests find it in REED_URL. */
export default async function serve(): Promise<void> {
  const port = await freePort();
  const server = spawn('node', ['scripts/serve.mjs'], {
    stdio: 'ignore',
    env: { ...process.env, PORT: String(port), NEXT_TELEMETRY_DISABLED: '1' },
  });
  globalThis.reedServer = server;
  process.env.REED_URL = `http://localhost:${port}`;
  for (let attempt = 0; attempt < 100; attempt++) {
    if (server.exitCode !== null)
      throw new Error('The server stopped at once. Is there a build? Run ./check.');
    try {
      if ((await fetch(process.env.REED_URL)).ok) return;
    } catch {
      // Not listening yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error('The server did not answer within 20 s.');
}

function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.on('error', reject);
    probe.listen(0, () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}
