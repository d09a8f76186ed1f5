import { CLOSING_COMMAND, openingCommands, readAsciiLine, type CanBitRate } from '@/core/codes/asciiCan';
import type { LineChannel } from '../lineChannel';
import type { BusAdapter } from './adapter';

const FIRST_RETRY_MS = 300;
const LONGEST_RETRY_MS = 5000;

/** A serial CAN adapter that speaks the public ASCII protocol, over whatever channel leads to it. It listens and sends nothing onto the bus. */
export function asciiAdapter(name: string, bitRate: CanBitRate, dial: () => LineChannel): BusAdapter {
  return {
    name,
    open(_machine, listener) {
      let channel: LineChannel | null = null;
      let timer: ReturnType<typeof setTimeout> | undefined;
      let wait = FIRST_RETRY_MS;
      let closed = false;
      const again = (why: string) => {
        if (closed) return;
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
          channel?.send(CLOSING_COMMAND);
          channel?.close();
        },
      };
    },
  };
}
