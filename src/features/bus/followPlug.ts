import type { CanBitRate } from '@/core/codes/asciiCan';
import { BusWatch, type BusReport } from '@/core/codes/busWatch';
import type { BusQuestion } from '@/core/codes/requests';
import type { BusLink } from '@/devices/bus/adapter';
import { asciiAdapter } from '@/devices/bus/asciiAdapter';
import { serialChannel } from '@/devices/serialChannel';
import { openPort } from '../meter/plug';

/** Serial CAN adapters talk at this speed, whatever the bus has. */
const BAUD_RATE = 115_200;
const TELL_MS = 500;
const AGAIN_MS = 3000;

/** A bus that is followed: the way to stop, and to ask it a question. */
export interface FollowedPlug {
  stop: () => void;
  ask: (question: BusQuestion) => boolean;
}

/** Follows a bus through an adapter at a plug of this device. */
export function followPlug(bitRate: CanBitRate, tell: (report: BusReport) => void): FollowedPlug {
  const watch = new BusWatch('CAN adapter at this device', false, 'the adapter is being called', Date.now);
  let link: BusLink | null = null;
  let stopped = false;
  let again: ReturnType<typeof setTimeout> | undefined;
  const lost = (why: string) => {
    watch.onLost(why);
    link?.close();
    link = null;
    if (!stopped) again = setTimeout(() => void call(), AGAIN_MS);
  };
  const call = async () => {
    try {
      const port = await openPort(BAUD_RATE);
      if (stopped) return void port.close().catch(() => undefined);
      // The adapter would dial again by itself; a plug has to be opened first, which only this can.
      link = asciiAdapter('', bitRate, () => serialChannel(port, '\r')).open('', {
        onUp: () => watch.onUp(),
        onLine: (line) => watch.onLine(line),
        onLost: lost,
      });
    } catch (error) {
      lost(error instanceof Error ? error.message : String(error));
    }
  };
  void call();
  const timer = setInterval(() => tell(watch.report()), TELL_MS);
  return {
    stop: () => {
      stopped = true;
      clearInterval(timer);
      clearTimeout(again);
      link?.close();
    },
    ask: (question) => link?.ask(question) ?? false,
  };
}
