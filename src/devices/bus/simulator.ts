import { createServer, type Server, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import { z } from 'zod';
import { BUS_QUESTION_NAMES } from '@/core/codes/requests';
import type { SimulatedMachine } from './simulatedMachine';

/** Where the stand-in bus is found when nothing else is said. */
export const SIMULATOR_PORT = 33070;
const TALK_MS = 200;
const CODES_MS = 1000;
/** A command longer than this is none. */
const LONGEST_COMMAND = 20_000;

/** Commands to the simulator, one JSON document a line. Its answers are lines that start with `#`. */
export const commandSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('listen'), machine: z.string().max(40) }),
  z.object({ do: z.literal('tell'), machine: z.string().max(40) }),
  z.object({
    do: z.literal('ask'),
    machine: z.string().max(40),
    question: z.enum(BUS_QUESTION_NAMES),
  }),
  z.object({
    do: z.literal('handle'),
    machine: z.string().max(40),
    function: z.string().max(200),
    setup: z.unknown(),
  }),
]);

/** `(seconds) name ID#DATA`, as bus logs write a frame. */
export function frameLine(seconds: number, id: number, data: readonly number[]): string {
  const hex = (value: number, digits: number) => value.toString(16).toUpperCase().padStart(digits, '0');
  return `(${seconds.toFixed(6)}) sim0 ${hex(id, 8)}#${data.map((byte) => hex(byte, 2)).join('')}`;
}

/** Serves simulated machines over TCP: whoever listens to one gets its frames as lines of text. */
export function serveMachines(machines: ReadonlyMap<string, SimulatedMachine>): Server {
  const listeners = new Map<string, Set<Socket>>();
  const tell = (machine: string, frames: readonly [number, number[]][]) => {
    const now = Date.now() / 1000;
    // Packets of one message are a few hundredths apart, as on a bus.
    const text = frames.map(([id, data], at) => frameLine(now + at * 0.05, id, data)).join('\n');
    for (const socket of listeners.get(machine) ?? []) socket.write(`${text}\n`);
  };
  const each = (work: (name: string, machine: SimulatedMachine) => void) => {
    for (const name of listeners.keys()) work(name, machines.get(name)!);
  };
  const timers = [
    setInterval(() => each((name, machine) => tell(name, machine.talkFrames(Date.now() / 1000))), TALK_MS),
    setInterval(() => each((name, machine) => tell(name, machine.codeFrames())), CODES_MS),
  ];

  const obey = (socket: Socket, line: string) => {
    const command = commandSchema.parse(JSON.parse(line));
    const machine = machines.get(command.machine);
    if (!machine) throw new Error(`no machine "${command.machine}" on this bus`);
    if (command.do === 'listen') {
      const heard = listeners.get(command.machine) ?? new Set<Socket>();
      listeners.set(command.machine, heard.add(socket));
      tell(command.machine, machine.codeFrames());
    } else if (command.do === 'ask') {
      tell(command.machine, machine.answerFrames(command.question));
    } else if (command.do === 'tell') {
      socket.write(`# standing ${JSON.stringify(machine.standing)}\n`);
    } else {
      machine.handle(command.function, command.setup);
      // A change is told at once.
      tell(command.machine, machine.codeFrames());
    }
  };

  const server = createServer((socket) => {
    socket.on('error', () => socket.destroy());
    socket.on('close', () => {
      for (const heard of listeners.values()) heard.delete(socket);
    });
    createInterface({ input: socket })
      .on('error', () => undefined)
      .on('line', (line) => {
        try {
          if (line.length > LONGEST_COMMAND) throw new Error('the command is too long');
          obey(socket, line);
          socket.write('# done\n');
        } catch (error) {
          const message = error instanceof Error ? error.message : String(error);
          socket.write(`# refused: ${message.replace(/\s+/g, ' ')}\n`);
        }
      });
  });
  server.on('close', () => timers.forEach((timer) => clearInterval(timer)));
  return server;
}
