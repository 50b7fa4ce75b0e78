// Serves what was built. Methods no page of this program uses are answered here: the framework has no answer to them.
// Usage: node scripts/serve.mjs [-p PORT]; on this machine only.
import http from 'node:http';
import { root } from './ensure.mjs';

process.env.NODE_ENV ??= 'production';
const { default: next } = await import('next');

const HOST = '127.0.0.1';
const at = process.argv.indexOf('-p');
const port = Number(at > 0 ? process.argv[at + 1] : (process.env.PORT ?? 3000));
const KNOWN = ['GET', 'HEAD', 'POST', 'PUT', 'DELETE', 'OPTIONS', 'PATCH'];

const app = next({ dev: false, dir: root, hostname: HOST, port });
await app.prepare();
const handle = app.getRequestHandler();
http
  .createServer((request, response) => {
    if (KNOWN.includes(request.method ?? '')) return void handle(request, response);
    const detail = `Nothing here answers to ${request.method}.`;
    response.writeHead(405, {
      'content-type': 'application/problem+json',
      allow: KNOWN.join(', '),
      'x-content-type-options': 'nosniff',
      'cross-origin-resource-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
    });
    response.end(JSON.stringify({ type: 'about:blank', status: 405, title: 'No such method', detail }));
  })
  .listen(port, HOST);
