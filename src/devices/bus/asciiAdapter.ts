import {
  askingCommands,
  CLOSING_COMMAND,
  openingCommands,
  readAsciiLine,
  type CanBitRate,
} from '@/core/codes/asciiCan';
import type { LineChannel } from '../lineChannel';
import type { BusAdapter } from './adapter';

const FIRST_RETRY_MS = 300;
const LONGEST_RETRY_MS = 5000;

/** How long an answer to a question may take before the adapter listens only again, milliseconds. */
const ANSWERED_MS = 3000;

/**
 * A serial CAN adapter that speaks the public ASCII protocol, over whatever channel leads to it. It listens only, but for the moments of a
 * question that somebody asks.
 */
export function asciiAdapter(
  name: string,
  bitRate: CanBitRate,
  dial: () => LineChannel,
  answeredMs = ANSWERED_MS,
): BusAdapter {
  return {
    name,
    open(_machine, listener) {
      let channel: LineChannel | null = null;
      let timer: ReturnType<typeof setTimeout> | undefined;
      let wait = FIRST_RETRY_MS;
      let closed = false;
      let up = false;
      let quiet: ReturnType<typeof setTimeout> | undefined;
      const again = (why: string) => {
        if (closed) return;
        up = false;
        clearTimeout(quiet);
        listener.onLost(why);
        // Who hears that it is lost may be done with it.
        if (closed) return;
        timer = setTimeout(call, wait);
        wait = Math.min(2 * wait, LONGEST_RETRY_MS);
      };
      const call = () => {
        const own = dial();
        channel = own;
        let heard = false;
        own.listen({
          line: (text) => {
            const found = readAsciiLine(text, Date.now() / 1000);
            // Closed already, it does not know how to close: that is no refusal.
            if (found.is === 'refused' || closed) return;
            if (!heard) {
              heard = true;
              up = true;
              wait = FIRST_RETRY_MS;
              listener.onUp();
            }
            if (found.is === 'frame') listener.onLine(found.line);
          },
          lost: again,
        });
        for (const command of openingCommands(bitRate)) own.send(command);
      };
      call();
      return {
        close() {
          closed = true;
          clearTimeout(timer);
          clearTimeout(quiet);
          channel?.send(CLOSING_COMMAND);
          channel?.close();
        },
        ask(question) {
          const own = channel;
          if (!up || closed || !own) return false;
          clearTimeout(quiet);
          for (const command of askingCommands(bitRate, question)) own.send(command);
          quiet = setTimeout(() => {
            if (own === channel && !closed) for (const command of openingCommands(bitRate)) own.send(command);
          }, answeredMs);
          return true;
        },
      };
    },
  };
}
