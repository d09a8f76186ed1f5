import { connect, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import type { Setup } from '@/core/circuit/schema';
import type { BusAdapter } from './adapter';

const FIRST_RETRY_MS = 300;
const LONGEST_RETRY_MS = 3000;
const ANSWER_MS = 3000;

/** The way to the simulated bus that ships with the application. */
export function simulatorAdapter({ host = '127.0.0.1', port }: { host?: string; port: number }): BusAdapter {
  return {
    name: 'Simulated bus',
    open(machine, listener) {
      let socket: Socket | null = null;
      let timer: ReturnType<typeof setTimeout> | undefined;
      let wait = FIRST_RETRY_MS;
      let closed = false;
      const dial = () => {
        let reason = 'the bus does not answer';
        socket = connect({ host, port });
        socket.on('connect', () => {
          socket!.write(`${JSON.stringify({ do: 'listen', machine })}\n`);
        });
        linesOf(socket).on('line', (line) => {
          if (closed) return;
          if (line === '# done') {
            wait = FIRST_RETRY_MS;
            listener.onUp();
          } else if (line.startsWith('# refused: ')) {
            reason = line.slice('# refused: '.length);
            socket!.destroy();
          } else listener.onLine(line);
        });
        socket.on('error', () => undefined);
        socket.on('close', () => {
          if (closed) return;
          listener.onLost(reason);
          timer = setTimeout(dial, wait);
          wait = Math.min(wait * 2, LONGEST_RETRY_MS);
        });
      };
      dial();
      return {
        close() {
          closed = true;
          clearTimeout(timer);
          socket?.destroy();
        },
      };
    },
    handle: (machine, functionName, setup) => ask(host, port, machine, functionName, setup),
  };
}

/** A socket's lines. The socket's own errors are heard at the socket. */
function linesOf(socket: Socket) {
  return createInterface({ input: socket }).on('error', () => undefined);
}

function ask(host: string, port: number, machine: string, functionName: string, setup: Setup): Promise<void> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port, timeout: ANSWER_MS });
    const fail = (message: string) => {
      socket.destroy();
      reject(new Error(message));
    };
    socket.on('error', () => fail('the simulated bus does not answer'));
    socket.on('timeout', () => fail('the simulated bus does not answer'));
    socket.on('connect', () =>
      socket.write(`${JSON.stringify({ do: 'handle', machine, function: functionName, setup })}\n`),
    );
    linesOf(socket).on('line', (line) => {
      if (line === '# done') {
        socket.destroy();
        resolve();
      } else if (line.startsWith('# refused: ')) fail(line.slice('# refused: '.length));
    });
  });
}
