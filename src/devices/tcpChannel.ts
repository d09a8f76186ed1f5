import { connect } from 'node:net';
import { createInterface } from 'node:readline';
import type { LineChannel } from './lineChannel';

const CONNECT_MS = 3000;

/** A host and a port from a setting such as `10.1.4.20:5025` or `[::1]:5025`; null where it is none. */
export function addressOf(setting: string | undefined): { host: string; port: number } | null {
  const found = /^(\[[0-9a-f:]+\]|[^:/\s]+):(\d{1,5})$/i.exec(setting?.trim() ?? '');
  if (!found) return null;
  return { host: found[1]!.replace(/^\[|\]$/g, ''), port: Number(found[2]) };
}

/** Lines over TCP, as instruments with a network plug take them ("raw socket"); each ended as the other side wants it. */
export function tcpChannel({ host, port }: { host: string; port: number }, lineEnd = '\n'): LineChannel {
  const socket = connect({ host, port });
  let closed = false;
  return {
    send: (line) => void socket.write(`${line}${lineEnd}`),
    listen(on) {
      const silent = setTimeout(() => socket.destroy(), CONNECT_MS);
      socket.on('connect', () => clearTimeout(silent));
      socket.on('error', () => undefined);
      socket.on('close', () => {
        clearTimeout(silent);
        if (!closed) on.lost('nobody answers there');
      });
      // The socket's own errors are heard at the socket.
      createInterface({ input: socket })
        .on('error', () => undefined)
        .on('line', on.line);
    },
    close() {
      closed = true;
      // What was said last still goes out; a call that nobody took ends at once.
      if (socket.connecting) socket.destroy();
      else socket.destroySoon();
    },
  };
}
