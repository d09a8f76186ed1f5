import 'server-only';
import { z } from 'zod';
import { setupSchema } from '@/core/circuit/schema';
import { CAN_BIT_RATES, isCanBitRate } from '@/core/codes/asciiCan';
import { BusWatch, codesKey } from '@/core/codes/busWatch';
import { BUS_QUESTION_NAMES, type BusQuestion } from '@/core/codes/requests';
import type { BusAdapter, BusLink } from '@/devices/bus/adapter';
import { asciiAdapter } from '@/devices/bus/asciiAdapter';
import { simulatorAdapter } from '@/devices/bus/simulatorAdapter';
import { addressOf, tcpChannel } from '@/devices/tcpChannel';
import { log } from '../serverLog';

const REPORT_MS = 500;
/** Of J1939 on most machines. */
const USUAL_BIT_RATE = 250_000;

/** The bus of this installation; `null` when none is set up. */
export function busAdapter(): BusAdapter | null {
  // A machine that is really there goes before the stand-in.
  const bridge = addressOf(process.env.SPIRAXIS_CAN);
  if (bridge) {
    const name = 'CAN adapter at the server';
    const said = process.env.SPIRAXIS_CAN_BIT_RATE ?? String(USUAL_BIT_RATE);
    const bitRate = Number(said);
    // A bit rate that nobody meant is not made up: at the wrong one nothing is heard, and nobody knows why.
    return isCanBitRate(bitRate)
      ? asciiAdapter(name, bitRate, () => tcpChannel(bridge, '\r'))
      : silentAdapter(
          name,
          `SPIRAXIS_CAN_BIT_RATE is ${said}; give one of ${Object.keys(CAN_BIT_RATES).join(', ')}`,
        );
  }
  const port = Number(process.env.SPIRAXIS_BUS_PORT ?? 0);
  return port > 0 ? simulatorAdapter({ port }) : null;
}

/** A way that leads nowhere, and says why. */
function silentAdapter(name: string, why: string): BusAdapter {
  return {
    name,
    open: (_machine, { onLost }) => {
      onLost(why);
      return { close: () => undefined, ask: () => false };
    },
  };
}

/** Ways to buses that pages hold open, by machine: what is asked goes out where the answer is heard. */
const held = new Map<string, Set<BusLink>>();

/** What a machine's bus says, as server-sent events, twice a second and whenever the codes change. */
export function busEvents(machine: string, signal: AbortSignal): ReadableStream<Uint8Array> {
  const adapter = busAdapter();
  const encoder = new TextEncoder();
  return new ReadableStream({
    start(controller) {
      const watch = new BusWatch(
        adapter?.name ?? null,
        adapter?.handle !== undefined,
        adapter ? 'the bus is being called' : 'no bus is set up here',
        Date.now,
      );
      let told = '';
      const tell = () => {
        const now = watch.report();
        told = codesKey(now);
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(now)}\n\n`));
      };
      const link = adapter?.open(machine, {
        onUp: () => watch.onUp(),
        onLine: (line) => {
          watch.onLine(line);
          if (told !== codesKey(watch.report())) tell();
        },
        onLost: (why) => watch.onLost(why),
      });
      const links = held.get(machine) ?? new Set();
      if (link) held.set(machine, links.add(link));
      tell();
      const timer = setInterval(tell, REPORT_MS);
      signal.addEventListener('abort', () => {
        clearInterval(timer);
        if (link) links.delete(link);
        if (links.size === 0) held.delete(machine);
        link?.close();
        controller.close();
      });
    },
  });
}

const handleSchema = z.object({ function: z.string().max(200), setup: setupSchema });
const askSchema = z.object({ ask: z.enum(BUS_QUESTION_NAMES) });

/** Takes what a page wants of a bus: a question that the standard lets anybody ask, or a simulated machine in a set-up. */
export async function tellBus(machine: string, text: string): Promise<{ trouble: string | null }> {
  let question: unknown;
  try {
    question = JSON.parse(text);
  } catch {
    return { trouble: 'The request is not JSON.' };
  }
  const asked = askSchema.safeParse(question);
  if (asked.success) return askBus(machine, asked.data.ask);
  return handleMachine(machine, question);
}

/** Asks over the way that a page holds open. */
function askBus(machine: string, question: BusQuestion): { trouble: string | null } {
  const isAsked = [...(held.get(machine) ?? [])].some((link) => link.ask(question));
  return { trouble: isAsked ? null : 'Nobody listens to this bus at present: nothing was asked.' };
}

/** Puts a function of a simulated machine into a set-up. */
async function handleMachine(machine: string, question: unknown): Promise<{ trouble: string | null }> {
  const adapter = busAdapter();
  if (!adapter?.handle) return { trouble: 'This bus is not simulated: set the machine up by hand.' };
  const parsed = handleSchema.safeParse(question);
  if (!parsed.success) return { trouble: `setup: ${parsed.error.issues[0]?.message ?? 'not valid'}` };
  try {
    await adapter.handle(machine, parsed.data.function, parsed.data.setup);
    return { trouble: null };
  } catch (error) {
    const trouble = error instanceof Error ? error.message : String(error);
    log.warn({ machine, trouble }, 'the simulated machine refused');
    return { trouble: `The simulated machine refused: ${trouble}.` };
  }
}
