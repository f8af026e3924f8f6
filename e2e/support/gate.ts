import { readFileSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { url } from './browser';

/** How a version calls itself; files that are called after it stay where they are. */
const BUILD = new RegExp(`(?<!static/)${readFileSync('.next/BUILD_ID', 'utf8').trim()}`, 'g');

/**
 * A server that can be taken away, and that can have a newer version of the program: it hands on what
 * the server of the tests answers.
 */
export class Gate {
  private readonly server: Server;
  /** Its address. */
  home = '';
  /** Put ahead of the program's own name of its version. */
  private version = '';

  private constructor() {
    this.server = createServer((asked, answer) => {
      const on = request(
        url(asked.url),
        { method: asked.method, headers: asked.headers },
        (found) => {
          if (asked.url !== '/sw.js' || this.version === '') {
            answer.writeHead(found.statusCode ?? 500, found.headers);
            found.pipe(answer);
            return;
          }
          const parts: Buffer[] = [];
          found.on('data', (part: Buffer) => parts.push(part));
          found.on('end', () => {
            delete found.headers['content-length'];
            answer.writeHead(200, found.headers);
            answer.end(Buffer.concat(parts).toString().replaceAll(BUILD, `${this.version}$&`));
          });
        },
      );
      on.on('error', () => answer.destroy());
      asked.pipe(on);
    });
  }

  static async open(): Promise<Gate> {
    const gate = new Gate();
    await new Promise<void>((done) => gate.server.listen(0, '127.0.0.1', done));
    gate.home = `http://localhost:${(gate.server.address() as AddressInfo).port}`;
    return gate;
  }

  /** From now on there is a newer version here. */
  renew(): void {
    this.version = 'newer-';
  }

  /** Nothing is answered at this address any more. */
  async close(): Promise<void> {
    this.server.closeAllConnections();
    await new Promise((done) => this.server.close(done));
  }
}
