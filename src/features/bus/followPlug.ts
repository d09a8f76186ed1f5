import type { CanBitRate } from '@/core/codes/asciiCan';
import { BusWatch, type BusReport } from '@/core/codes/busWatch';
import { asciiAdapter } from '@/devices/bus/asciiAdapter';
import { serialChannel } from '@/devices/serialChannel';
import { openPort } from '../meter/plug';

/** Serial CAN adapters talk at this speed, whatever the bus has. */
const BAUD_RATE = 115_200;
const TELL_MS = 500;
const AGAIN_MS = 3000;

/** Follows a bus through an adapter at a plug of this device. Gives the way to stop. */
export function followPlug(bitRate: CanBitRate, tell: (report: BusReport) => void): () => void {
  const watch = new BusWatch('CAN adapter at this device', false, 'the adapter is being called', Date.now);
  let stop: (() => void) | null = null;
  let stopped = false;
  let again: ReturnType<typeof setTimeout> | undefined;
  const lost = (why: string) => {
    watch.onLost(why);
    stop?.();
    stop = null;
    if (!stopped) again = setTimeout(() => void call(), AGAIN_MS);
  };
  const call = async () => {
    try {
      const port = await openPort(BAUD_RATE);
      if (stopped) return void port.close().catch(() => undefined);
      // The adapter would dial again by itself; a plug has to be opened first, which only this can.
      const link = asciiAdapter('', bitRate, () => serialChannel(port, '\r')).open('', {
        onUp: () => watch.onUp(),
        onLine: (line) => watch.onLine(line),
        onLost: lost,
      });
      stop = () => link.close();
    } catch (error) {
      lost(error instanceof Error ? error.message : String(error));
    }
  };
  void call();
  const timer = setInterval(() => tell(watch.report()), TELL_MS);
  return () => {
    stopped = true;
    clearInterval(timer);
    clearTimeout(again);
    stop?.();
  };
}
