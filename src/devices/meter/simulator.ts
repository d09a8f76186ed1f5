import { createServer, type Server, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import { z } from 'zod';
import { functionName, readFunction, writeFigure } from '@/core/instrument/scpi';
import type { Leads, SimulatedMeter } from './simulatedMeter';

/** Where the stand-in meter is found when nothing else is said. */
export const METER_PORT = 33080;
/** What it calls itself: an instrument that says `SIMULATED` has leads that can be moved over the wire. */
export const METER_NAME = 'Spiraxis,SIMULATED bench meter,0,1';
/** A command longer than this is none. */
const LONGEST_COMMAND = 20_000;
const MOST_ERRORS = 20;

const placeSchema = z.object({
  machine: z.string().max(40),
  function: z.string().max(200),
  test: z.unknown(),
  /** Switched on and off over and over while it is read. */
  switched: z.boolean().optional(),
});

/** One connection: its own leads and its own list of errors, as SCPI has them. */
class Session {
  private leads: Leads | null = null;
  private readonly errors: string[] = [];

  constructor(
    private readonly meter: SimulatedMeter,
    private readonly socket: Socket,
  ) {}

  obey(line: string): void {
    if (line.length > LONGEST_COMMAND) return this.fail('-223,"Too much data"');
    // A placement is JSON and may hold what separates commands.
    if (/^\s*SIM(ulate)?:PLACe?\s/i.test(line)) return this.place(line);
    for (const command of line.split(';')) if (command.trim() !== '') this.command(command.trim());
  }

  private command(command: string): void {
    const [head = '', ...rest] = command.split(/\s+/);
    // Short names of the standard: the capitals of its long ones.
    const name = head
      .toUpperCase()
      .replace(/^:/, '')
      .replace('SENSE:', '')
      .replace('SENS:', '')
      .replace('FUNCTION', 'FUNC')
      .replace('CONFIGURE', 'CONF')
      .replace('MEASURE', 'MEAS')
      .replace('SYSTEM:ERROR', 'SYST:ERR')
      .replace('FETCH?', 'FETC?');
    if (name === '*IDN?') return this.say(METER_NAME);
    if (name === '*CLS') return void this.errors.splice(0);
    if (name === '*RST') return void (this.meter.mode = { measures: 'volts', coupling: 'dc' });
    if (name === '*OPC?') return this.say('1');
    if (name === 'SYST:ERR?' || name === 'SYST:ERR:NEXT?')
      return this.say(this.errors.shift() ?? '0,"No error"');
    if (name === 'FUNC?') return this.say(`"${functionName(this.meter.mode)}"`);
    if (name === 'CONF?') return this.say(`"${functionName(this.meter.mode)} +1.0E+01,+1.0E-05"`);
    if (name === 'FUNC') return this.turn(rest.join(' '));
    if (name === 'READ?' || name === 'FETC?') return this.read();
    if (name.startsWith('CONF:')) return this.turn(name.slice('CONF:'.length));
    if (name.startsWith('MEAS:') && name.endsWith('?')) {
      this.turn(name.slice('MEAS:'.length, -1));
      return this.read();
    }
    this.fail('-113,"Undefined header"');
  }

  private turn(wanted: string): void {
    const mode = readFunction(wanted);
    if (mode) this.meter.mode = mode;
    else this.fail('-224,"Illegal parameter value"');
  }

  private read(): void {
    this.say(writeFigure(this.leads?.show() ?? 0));
  }

  private place(line: string): void {
    const text = line.slice(line.indexOf('{'));
    try {
      const place = placeSchema.parse(JSON.parse(text));
      this.leads = this.meter.stand(place.machine, place.function, place.test, place.switched);
    } catch (error) {
      this.leads = null;
      const why = error instanceof z.ZodError ? 'no such test' : (error as Error).message;
      this.fail(`-224,"Illegal parameter value;${why.replace(/["\s]+/g, ' ').slice(0, 200)}"`);
    }
  }

  private fail(error: string): void {
    if (this.errors.length < MOST_ERRORS) this.errors.push(error);
  }

  private say(line: string): void {
    this.socket.write(`${line}\n`);
  }
}

/** Serves a simulated meter over TCP in SCPI. */
export function serveMeter(meter: SimulatedMeter): Server {
  return createServer((socket) => {
    const session = new Session(meter, socket);
    socket.on('error', () => socket.destroy());
    createInterface({ input: socket })
      .on('error', () => undefined)
      .on('line', (line) => session.obey(line));
  });
}

/** The command that puts the simulated meter's leads on a test's points; what it measures rests, or is switched on and off over and over. */
export function placeCommand(machine: string, functionName: string, test: unknown, switched = false): string {
  return `SIMulate:PLACe ${JSON.stringify({ machine, function: functionName, test, switched })}`;
}
