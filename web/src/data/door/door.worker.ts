/**
 * The door to the gym's network, on a thread of its own: HTTPS in front of the server that this machine
 * alone can reach. It lets nobody in by itself; it marks what came through it, and the server asks who it
 * is.
 */
import { Agent, request as ask, type IncomingMessage, type ServerResponse } from 'node:http';
import { createServer } from 'node:https';
import type { Socket } from 'node:net';
import { pipeline } from 'node:stream/promises';
import { parentPort, workerData } from 'node:worker_threads';
import { isNearby, plainAddress } from './addresses';
import { FROM, MARK } from './byDoor';
import type { DoorOrder, DoorWord } from './door';

const { cert, key, port, inside, mark } = workerData as DoorOrder;
const agent = new Agent({ keepAlive: true, maxSockets: 64 });

/** So many at once; a gym has tens of phones. */
const MOST = 256;

/** Of the connection and not of what is asked. Source: RFC 9110, section 7.6.1. */
const OF_THE_CONNECTION = new Set(
  ['connection', 'keep-alive', 'te', 'trailer', 'transfer-encoding', 'upgrade'].concat([
    'proxy-connection',
    'proxy-authorization',
    'proxy-authenticate',
  ]),
);
/** Only the door and the server itself say such things. */
const OURS = /^(x-sinew-|x-forwarded|forwarded$|x-real-ip$|x-middleware-)/;

function headersFor(request: IncomingMessage): Record<string, string | string[]> {
  const kept: Record<string, string | string[]> = {};
  for (const [name, value] of Object.entries(request.headers)) {
    if (value === undefined || OF_THE_CONNECTION.has(name) || OURS.test(name)) continue;
    kept[name] = value;
  }
  return {
    ...kept,
    [MARK]: mark,
    [FROM]: plainAddress(request.socket.remoteAddress ?? ''),
    'x-forwarded-proto': 'https',
  };
}

function refuse(response: ServerResponse, status: number, words: string): void {
  if (response.headersSent) return void response.destroy();
  response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8', connection: 'close' });
  response.end(words);
}

function passOn(request: IncomingMessage, response: ServerResponse): void {
  const asked = ask(
    {
      host: inside.host,
      port: inside.port,
      method: request.method,
      path: request.url,
      headers: headersFor(request),
      agent,
    },
    (answer) => {
      const headers = Object.fromEntries(
        Object.entries(answer.headers).filter(([name]) => !OF_THE_CONNECTION.has(name)),
      );
      response.writeHead(answer.statusCode ?? 502, headers);
      pipeline(answer, response).catch(() => response.destroy());
    },
  );
  asked.on('error', () => refuse(response, 502, 'Sinew does not answer just now. Try again.'));
  // A phone that goes away half-way takes what it has begun with it.
  response.on('close', () => void (response.writableFinished || asked.destroy()));
  pipeline(request, asked).catch(() => asked.destroy());
}

const server = createServer(
  // A film over bad Wi-Fi takes as long as it takes; its headers do not.
  { cert, key, minVersion: 'TLSv1.2', headersTimeout: 15_000, requestTimeout: 0 },
  passOn,
);
server.maxConnections = MOST;
server.on('connection', (socket: Socket) => {
  if (!isNearby(socket.remoteAddress ?? '')) socket.destroy();
});
server.on('upgrade', (_, socket) => socket.destroy());
const say = (word: DoorWord) => parentPort?.postMessage(word);
server.on('error', (error: NodeJS.ErrnoException) =>
  say({ kind: 'failed', code: error.code ?? error.message }),
);
server.listen(port, () => say({ kind: 'open' }));
