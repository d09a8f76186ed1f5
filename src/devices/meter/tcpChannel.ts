import { connect } from 'node:net';
import { createInterface } from 'node:readline';
import type { LineChannel } from './instrument';

const CONNECT_MS = 3000;

/** Lines over TCP, as instruments with a network plug take them ("raw socket", often port 5025). */
export function tcpChannel({ host, port }: { host: string; port: number }): LineChannel {
  const socket = connect({ host, port });
  let closed = false;
  return {
    send: (line) => void socket.write(`${line}\n`),
    listen(on) {
      const silent = setTimeout(() => socket.destroy(), CONNECT_MS);
      socket.on('connect', () => clearTimeout(silent));
      socket.on('error', () => undefined);
      socket.on('close', () => {
        clearTimeout(silent);
        if (!closed) on.lost('the instrument does not answer');
      });
      // The socket's own errors are heard at the socket.
      createInterface({ input: socket })
        .on('error', () => undefined)
        .on('line', on.line);
    },
    close() {
      closed = true;
      socket.destroy();
    },
  };
}
