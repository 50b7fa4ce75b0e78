import net from 'node:net';
import { INSTRUMENT_KINDS, LINE_MAX, type InstrumentKind } from '@/core/instrument/commands';
import type { StandIns } from '@/core/instrument/stand-in';

export type Ports = Record<InstrumentKind, number>;

/**
 * Serves four simulated instruments on this machine, each at a port of its own.
 * @param first port of the meter, the others behind it; 0 for whatever is free
 */
export async function serveStandIns(standIns: StandIns, first = 0): Promise<{ ports: Ports; close(): void }> {
  const servers = INSTRUMENT_KINDS.map(
    (kind) => [kind, net.createServer((socket) => talk(socket, kind, standIns))] as const,
  );
  const ports: Partial<Ports> = {};
  for (const [n, [kind, server]] of servers.entries()) {
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(first === 0 ? 0 : first + n, '127.0.0.1', resolve);
    });
    ports[kind] = (server.address() as net.AddressInfo).port;
  }
  return { ports: ports as Ports, close: () => servers.forEach(([, server]) => server.close()) };
}

function talk(socket: net.Socket, kind: InstrumentKind, standIns: StandIns): void {
  let heard = '';
  socket.setEncoding('latin1');
  socket.on('error', () => socket.destroy());
  socket.on('data', (text: string) => {
    heard += text;
    for (let end = heard.indexOf('\n'); end >= 0; end = heard.indexOf('\n')) {
      const line = heard.slice(0, end).replace(/\r$/, '');
      heard = heard.slice(end + 1);
      for (const part of line.split(';')) {
        if (part.trim() === '') continue;
        const answer = standIns.answer(kind, part);
        if (answer !== null) socket.write(`${answer}\n`);
      }
    }
    if (heard.length > LINE_MAX) {
      heard = '';
      socket.destroy();
    }
  });
}
