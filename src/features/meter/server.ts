import 'server-only';
import { z } from 'zod';
import { testSchema } from '@/core/circuit/schema';
import { MEASURES } from '@/core/instrument/meterMode';
import type { Instrument } from '@/devices/meter/instrument';
import { scpiInstrument, type ScpiInstrument } from '@/devices/meter/scpiInstrument';
import { placeCommand } from '@/devices/meter/simulator';
import { addressOf, tcpChannel } from '@/devices/tcpChannel';
import { Refused } from '../gate/failure';
import { log } from '../serverLog';
import { followInstrument, PACES } from './follow';
import { METER_SILENT } from '@/core/instrument/meterReport';

const HEARTBEAT_MS = 5000;

/** Where the shop's meter stands on the network, from the server's own settings: never from a request. Null where there is none. */
export function meterAddress(): { host: string; port: number } | null {
  return addressOf(process.env.SPIRAXIS_METER);
}

/** Where the leads stand, as a page asks for it. */
export const placeSchema = z.object({
  machine: z.string().min(1).max(40),
  function: z.string().min(1).max(200),
  test: testSchema.nullable(),
  pace: z.enum(PACES),
});
export type MeterPlace = z.infer<typeof placeSchema>;

/** A simulated meter is told where its leads stand; a real one's are held by a hand. */
async function putLeads(instrument: ScpiInstrument, name: string, place: MeterPlace) {
  const simulated = name.includes('SIMULATED');
  if (simulated && place.test) {
    // What is recorded is switched on and off meanwhile: by a hand on a machine, by itself on a simulated one.
    const switched = place.pace === 'recording';
    await instrument.tell(placeCommand(place.machine, place.function, place.test, switched));
  }
  return { simulated };
}

/** What the shop's meter shows, as server-sent events. */
export function meterEvents(place: MeterPlace, signal: AbortSignal): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  const address = meterAddress();
  return new ReadableStream({
    start(controller) {
      const first = address ? METER_SILENT : { ...METER_SILENT, lost: 'no meter is set up at this server' };
      let told = JSON.stringify(first);
      const send = () => controller.enqueue(encoder.encode(`data: ${told}\n\n`));
      send();
      const open = (): Promise<Instrument> => Promise.resolve(scpiInstrument(tcpChannel(address!)));
      const stop = address
        ? followInstrument(
            open,
            (instrument, name) => putLeads(instrument as ScpiInstrument, name, place),
            (report) => {
              told = JSON.stringify(report);
              send();
            },
            place.pace,
          )
        : () => undefined;
      const timer = setInterval(send, HEARTBEAT_MS);
      signal.addEventListener('abort', () => {
        clearInterval(timer);
        stop();
        controller.close();
      });
    },
  });
}

export const turnSchema = z.object({
  measures: z.enum(MEASURES),
  coupling: z.enum(['dc', 'ac']).optional(),
});

/** Turns the dial of the shop's meter. Throws `Refused` where there is none, it does not answer, or it will not. */
export async function turnMeter({ measures, coupling }: z.infer<typeof turnSchema>): Promise<void> {
  const address = meterAddress();
  if (!address) throw new Refused(404, 'not-found', 'No meter is set up at this server.');
  const instrument = scpiInstrument(tcpChannel(address));
  try {
    await instrument.turnTo(coupling ? { measures, coupling } : { measures });
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    log.warn({ why }, 'the meter did not turn');
    throw new Refused(503, 'away', `The meter stands as it was: ${why}.`);
  } finally {
    instrument.close();
  }
}

/** A place as an address has it: `?machine=&function=&test=&pace=`. Throws `InputError` or a Zod error for one that is none. */
export function placeAsked({ searchParams }: URL): MeterPlace {
  const text = searchParams.get('test');
  let test: unknown = null;
  try {
    if (text !== null) test = JSON.parse(text);
  } catch {
    throw new Refused(400, 'bad-input', 'test: is no JSON.');
  }
  return placeSchema.parse({
    machine: searchParams.get('machine') ?? '',
    function: searchParams.get('function') ?? '',
    test,
    pace: searchParams.get('pace') ?? 'eye',
  });
}
