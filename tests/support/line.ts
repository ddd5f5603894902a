import { once } from 'node:events';
import { createServer, request, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo, Socket } from 'node:net';

/** The way from a page to its server, which a test cuts and mends at once: a server that is ended takes its time to come back. */
export interface Line {
  url: string;
  /** Breaks what is under way, and whatever is asked for until it is mended. */
  cut(): void;
  mend(): void;
  /** Has answers passed on otherwise. @param pass writes the answer; false has it passed on as it is */
  passThrough(pass: (asked: IncomingMessage, given: IncomingMessage, answer: ServerResponse) => boolean): void;
  end(): void;
}

/** Lays a line on a port of its own. @param to the server's address */
export async function layLine(to: string): Promise<Line> {
  let isCut = false;
  let pass: Parameters<Line['passThrough']>[0] = () => false;
  const sockets = new Set<Socket>();
  const server = createServer((asked, answer) => {
    const headers = { ...asked.headers, 'accept-encoding': 'identity' };
    const onward = request(`${to}${asked.url}`, { method: asked.method, headers }, (given) => {
      answer.writeHead(given.statusCode!, given.headers);
      if (!pass(asked, given, answer)) given.pipe(answer);
    });
    onward.on('error', () => answer.destroy());
    asked.pipe(onward);
  });
  server.on('connection', (socket) => {
    if (isCut) return socket.destroy();
    sockets.add(socket);
    socket.on('close', () => sockets.delete(socket));
  });
  await once(server.listen(0, '127.0.0.1'), 'listening');
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    cut() {
      isCut = true;
      for (const socket of sockets) socket.destroy();
    },
    mend: () => void (isCut = false),
    passThrough: (next) => void (pass = next),
    end() {
      server.closeAllConnections();
      server.close();
    },
  };
}
