import 'server-only';
import { z } from 'zod';
import { setupSchema } from '@/core/circuit/schema';
import { LiveCodes, LOST_SECONDS } from '@/core/codes/liveCodes';
import type { BusAdapter } from '@/devices/bus/adapter';
import { simulatorAdapter } from '@/devices/bus/simulatorAdapter';
import { log } from '../serverLog';
import type { BusReport } from './report';

const REPORT_MS = 500;

/** The bus of this installation; `null` when none is set up. */
export function busAdapter(): BusAdapter | null {
  const port = Number(process.env.SPIRAXIS_BUS_PORT ?? 0);
  return port > 0 ? simulatorAdapter({ port }) : null;
}

/** What a machine's bus says, as server-sent events, twice a second and whenever the codes change. */
export function busEvents(machine: string, signal: AbortSignal): ReadableStream<Uint8Array> {
  const adapter = busAdapter();
  const encoder = new TextEncoder();
  return new ReadableStream({
    start(controller) {
      const live = new LiveCodes();
      let up = false;
      let reason: string | null = adapter ? 'the bus is being called' : 'no bus is set up here';
      let heard = 0;
      let told = '';
      const report = (): BusReport => {
        const quiet = heard === 0 ? null : (Date.now() - heard) / 1000;
        const lost = !up || quiet === null || quiet > LOST_SECONDS;
        const why = up && quiet !== null ? 'no frame for some seconds' : reason;
        return {
          adapter: adapter?.name ?? null,
          simulated: adapter?.handle !== undefined,
          lost: lost ? (why ?? 'no frame yet') : null,
          frames: live.state().frames,
          senders: live.state().senders,
          codes: lost ? [] : live.state().codes,
        };
      };
      const tell = () => {
        const now = report();
        told = JSON.stringify([
          now.lost,
          now.codes.map(({ component, failureMode }) => [component, failureMode]),
        ]);
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(now)}\n\n`));
      };
      const link = adapter?.open(machine, {
        onUp: () => {
          up = true;
          reason = null;
        },
        onLine: (line) => {
          heard = Date.now();
          live.line(line);
          const now = live.state().codes.map(({ component, failureMode }) => [component, failureMode]);
          if (told !== JSON.stringify([null, now])) tell();
        },
        onLost: (why) => {
          up = false;
          reason = why;
        },
      });
      tell();
      const timer = setInterval(tell, REPORT_MS);
      signal.addEventListener('abort', () => {
        clearInterval(timer);
        link?.close();
        controller.close();
      });
    },
  });
}

const handleSchema = z.object({ function: z.string().max(200), setup: setupSchema });

/** Puts a function of a simulated machine into a set-up. */
export async function handleMachine(machine: string, text: string): Promise<{ trouble: string | null }> {
  const adapter = busAdapter();
  if (!adapter?.handle) return { trouble: 'This bus is not simulated: set the machine up by hand.' };
  let question: unknown;
  try {
    question = JSON.parse(text);
  } catch {
    return { trouble: 'The request is not JSON.' };
  }
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
