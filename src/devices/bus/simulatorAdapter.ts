import { connect, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import { z } from 'zod';
import { setupSchema } from '@/core/circuit/schema';
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
          } else if (line.startsWith(REFUSED)) {
            reason = line.slice(REFUSED.length);
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
        ask(question) {
          if (closed || !socket?.writable) return false;
          socket.write(`${JSON.stringify({ do: 'ask', machine, question })}\n`);
          return true;
        },
      };
    },
    async handle(machine, functionName, setup) {
      await ask(host, port, { do: 'handle', machine, function: functionName, setup });
    },
    async standing(machine) {
      const [answer] = await ask(host, port, { do: 'tell', machine });
      return z.record(z.string(), setupSchema).parse(JSON.parse(answer ?? '{}'));
    },
  };
}

/** A socket's lines. The socket's own errors are heard at the socket. */
function linesOf(socket: Socket) {
  return createInterface({ input: socket }).on('error', () => undefined);
}

const STANDING = '# standing ';
const REFUSED = '# refused: ';

/** Sends one command; gives what the machine told before it was done. */
function ask(host: string, port: number, command: object): Promise<string[]> {
  return new Promise((resolve, reject) => {
    const told: string[] = [];
    const socket = connect({ host, port, timeout: ANSWER_MS });
    const fail = (message: string) => {
      socket.destroy();
      reject(new Error(message));
    };
    socket.on('error', () => fail('the simulated bus does not answer'));
    socket.on('timeout', () => fail('the simulated bus does not answer'));
    socket.on('connect', () => socket.write(`${JSON.stringify(command)}\n`));
    linesOf(socket).on('line', (line) => {
      if (line.startsWith(STANDING)) told.push(line.slice(STANDING.length));
      else if (line.startsWith(REFUSED)) fail(line.slice(REFUSED.length));
      else if (line === '# done') {
        socket.destroy();
        resolve(told);
      }
    });
  });
}
