import type { Instrument } from '@/devices/meter/instrument';
import { plainInstrument } from '@/devices/meter/plainInstrument';
import { scpiInstrument } from '@/devices/meter/scpiInstrument';
import { serialChannel } from '@/devices/serialChannel';
import type { Speech } from './liveSource';

/** Whether this browser reaches a plug at all. */
export function reachesPlugs(): boolean {
  return typeof navigator !== 'undefined' && 'serial' in navigator;
}

/** Asks the person once which plug it is; false where none was chosen. Has to be called from a press. */
export async function choosePlug(): Promise<boolean> {
  try {
    await navigator.serial.requestPort();
    return true;
  } catch {
    // The person closed the browser's own question.
    return false;
  }
}

/** Opens the plug that was allowed before. Rejects where none was, or it is not there. */
export async function openPort(baudRate: number): Promise<SerialPort> {
  if (!reachesPlugs()) throw new Error('this browser reaches no serial plug');
  const [port] = await navigator.serial.getPorts();
  if (!port) throw new Error('no plug is chosen yet');
  await port.open({ baudRate });
  return port;
}

/** A meter at that plug, as it talks. */
export async function openPlug({
  speech,
  baudRate,
}: {
  speech: Speech;
  baudRate: number;
}): Promise<Instrument> {
  const channel = serialChannel(await openPort(baudRate));
  return speech === 'scpi' ? scpiInstrument(channel) : plainInstrument(channel);
}
